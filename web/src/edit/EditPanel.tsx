import { useState } from "react";
import type { EditInputs, EnvelopePart, ScaleEntry } from "../api/types";
import { hueStyle, parameterHue } from "../draw/hue";
import { chooseMany, runsOf, stretchNow } from "../gestures/choice";
import { removePoints } from "../gestures/points";
import { edit, tickOf } from "../song/actions";
import { findParameter } from "../song/catalogue";
import { setView, song, tell, useSong } from "../song/store";
import { useGrid } from "../song/useGrid";
import { positionText } from "../song/viewport";
import { NumberField, TextField } from "../transport/Fields";
import { useSay } from "../unfold/useSay";
import { Do, Row, Typed } from "./Fields";
import { ShapeNumbers } from "./ShapeNumbers";
import { copyStretch, cutStretch, duplicateStretch, fade, pasteStretch } from "./clipboard";

/** Everything that can be done with the envelope at hand and its chosen points. */
export function EditPanel() {
  const envelope = useSong((state) => (state.envelopeId ? state.model.envelopes[state.envelopeId] : undefined));
  const catalogue = useSong((state) => state.catalogue);
  const tracks = useSong((state) => state.model.tracks);
  const placed = catalogue && envelope ? findParameter(catalogue, tracks, envelope.target) : null;
  if (!envelope || !placed) return <p className="faint p-3">Choose points first: press one on a line, drag a loop around several, or drag over time with the range tool.</p>;
  return <OfEnvelope envelope={envelope} scale={placed.scale} name={placed.entry.name} />;
}

function OfEnvelope({ envelope, scale, name }: { envelope: EnvelopePart; scale: ScaleEntry; name: string }) {
  const chosen = useSong((state) => state.chosen);
  const from = useSong((state) => state.windowFrom);
  const uneven = useSong((state) => state.uneven[envelope.id]);
  const owner = useSong(({ model }) => (envelope.owner.startsWith("clip/") ? `in ${model.clips[envelope.owner.slice(5)]?.name}` : "lane"));
  const runs = runsOf(chosen);
  const base = { envelope_id: envelope.id, runs };
  return (
    <div className="flex flex-col gap-2.5 p-3" style={hueStyle(parameterHue(envelope.target))} data-testid="edit">
      <header>
        <h3 className="font-bold">{name} {owner}</h3>
        <Span envelope={envelope} scale={scale} chosen={chosen} />
      </header>
      <Row title="Choose">
        <Do words="All" title="All points (Ctrl A)" onDo={() => chooseMany(envelope.id, envelope.points.map((_, i) => i), from)} />
        <Do words="None" onDo={() => chooseMany(envelope.id, [], from)} />
        <Do words="Remove" title="Delete" off={chosen.length === 0} onDo={() => removePoints(envelope.id, chosen)} />
      </Row>
      {uneven?.length > 0 && (
        <p role="status" className="flex items-center gap-2 rounded-field bg-warning px-2 py-1 text-[12px] text-base-100">
          A fade starts a hair off the value before it.
          <button type="button" className="underline" onClick={() => void edit("level_points", { envelope_id: envelope.id, runs: [[uneven[0], uneven[0]]], to: "before" })}>Make it level</button>
        </p>
      )}
      {chosen.length > 0 && <Chosen envelope={envelope} scale={scale} chosen={chosen} base={base} />}
      <Stretches />
      <Row title="Envelope">
        <Do words="Clear" title="Take out all points; the envelope stays" off={envelope.points.length === 0} onDo={() => void edit("clear_envelope", { envelope_id: envelope.id }).then((change) => change && tell("done", `Done: ${change.words}`, true))} />
        <Do words={envelope.on ? "Switch off" : "Switch on"} onDo={() => void edit("switch_envelope", { envelope_id: envelope.id, on: !envelope.on })} />
      </Row>
    </div>
  );
}

/** How many points are chosen, over which time and between which values. */
function Span({ envelope, scale, chosen }: { envelope: EnvelopePart; scale: ScaleEntry; chosen: number[] }) {
  const span = useSong((state) => state.span);
  const say = useSay(envelope, scale);
  const points = chosen.map((index) => envelope.points[index]).filter(Boolean);
  const values = points.map((point) => point.value);
  const ends = span ?? (points.length > 0 ? [points[0].tick, points[points.length - 1].tick] : null);
  if (!ends) return <p className="faint text-[12px]">no point chosen, of {envelope.points.length}</p>;
  return (
    <p className="faint text-[12px]" data-testid="choice-span">
      {points.length === 1 ? "1 point" : `${points.length} points`}, {say.position(ends[0])}{ends[1] > ends[0] && ` to ${say.position(ends[1])}`}
      {points.length > 0 && ` · ${say(Math.min(...values))}${points.length > 1 ? ` to ${say(Math.max(...values))}` : ""}`}
    </p>
  );
}

type Base = { envelope_id: string; runs: [number, number][] };

function Chosen({ envelope, scale, chosen, base }: { envelope: EnvelopePart; scale: ScaleEntry; chosen: number[]; base: Base }) {
  const say = useSay(envelope, scale);
  const grid = useGrid();
  const [pivot, setPivot] = useState("foot");
  const [strength, setStrength] = useState(100);
  const first = envelope.points[chosen[0]];
  if (!first) return null;
  const several = chosen.length > 1;
  const stretch = (factor: number) => {
    const ends = stretchNow();
    if (ends) void edit("stretch_points", { ...base, start_tick: ends[0], end_tick: ends[0] + Math.max(1, Math.round((ends[1] - ends[0]) * factor)), push: song().view.push });
  };
  return (
    <>
      <div className="grid grid-cols-2 gap-1.5">
        <Typed key={`v${chosen}${first.value}`} label="Value" id="exact-value" value={several ? "" : say(first.value)} hint={several ? "all to…" : undefined} name="enter_points" inputs={(value) => ({ ...base, value })} />
        <Typed key={`p${chosen}${first.tick}`} label="Position" value={say.position(first.tick)} name="enter_points" inputs={(position) => ({ ...base, position })} />
      </div>
      <ShapeNumbers envelope={envelope} chosen={chosen} />
      <Row title="Level">
        <Do words="with the first" off={!several} onDo={() => void edit("level_points", { ...base, to: "first" })} />
        <Do words="with the one before" onDo={() => void edit("level_points", { ...base, to: "before" })} />
      </Row>
      <Row title="Turn">
        <Do words="Upside down" off={!several} onDo={() => void edit("flip_points", base)} />
        <Do words="Backwards" off={!several} onDo={() => void edit("reverse_points", base)} />
      </Row>
      <Row title="In time">
        <Do words="Halve" off={!several} onDo={() => stretch(0.5)} />
        <Do words="Double" off={!several} onDo={() => stretch(2)} />
        <Do words="Quantise" off={grid === 0} title={grid === 0 ? "Switch a grid on first" : "Pull to the grid"} onDo={() => void edit("quantise_points", { ...base, grid_ticks: grid, strength: strength / 100 })} />
        <NumberField label="Strength" unit="%" value={strength} min={0} max={100} onCommit={async (wish) => setStrength(wish)} />
      </Row>
      <div className="grid grid-cols-2 gap-1.5">
        <Typed label="Boost or cut by" hint={scale.gain ? "-3 dB" : "10 %"} name="boost_points" inputs={(amount) => ({ ...base, amount })} />
        <Typed label="Tilt the end by" hint={scale.gain ? "-3 dB" : "10 %"} name="tilt_points" inputs={(amount) => ({ ...base, amount })} />
        <Typed label="Scale to %" hint="50" name="scale_points" inputs={(text) => scaling(base, text, pivot)} />
        <label className="flex flex-col text-[11.5px]">
          <span className="faint">about</span>
          <input className="input input-sm w-full bg-base-200 px-1.5" aria-label="Pivot" list="pivots" value={pivot} onChange={(event) => setPivot(event.target.value)} onKeyDown={(event) => event.stopPropagation()} />
          <datalist id="pivots"><option value="foot" /><option value="middle" /></datalist>
        </label>
        <Typed label="Thin out within %" hint="1" name="thin_points" inputs={(text) => ({ ...base, tolerance: Number(text.replace("%", "")) / 100 })} />
        <Typed label="Level at" hint={say(first.value)} name="level_points" inputs={(to) => ({ ...base, to })} />
      </div>
    </>
  );
}

const scaling = (base: Base, text: string, pivot: string): EditInputs["scale_points"] => ({ ...base, factor: Number(text.replace("%", "")) / 100, pivot: pivot.trim() || "foot" });

/** One end of the chosen range, as people write positions; the points in it are chosen with it. */
function Place({ end, label }: { end: 0 | 1; label: string }) {
  const envelope = useSong((state) => (state.envelopeId ? state.model.envelopes[state.envelopeId] : undefined));
  const meter = useSong((state) => state.model.head.meter);
  const span = useSong((state) => state.span);
  const [fault, setFault] = useState<string | null>(null);
  if (!envelope) return null;
  const commit = async (text: string) => {
    setFault(null);
    const tick = await tickOf(text, setFault);
    if (tick === null) return;
    const next: [number, number] = end === 0 ? [tick, Math.max(span?.[1] ?? 0, tick)] : [Math.min(span?.[0] ?? 0, tick), tick];
    chooseMany(envelope.id, envelope.points.flatMap((point, i) => (point.tick >= next[0] && point.tick <= next[1] ? [i] : [])), song().windowFrom, next);
  };
  return (
    <label className="flex min-w-0 flex-col text-[11.5px]">
      <span className="faint">{label}</span>
      <TextField label={label} value={span ? positionText(meter, span[end]) : ""} hint="bar.beat.tick" onCommit={commit} className="w-full border-base-300 bg-base-200 pointer-coarse:h-11" />
      {fault && <span role="alert" className="mt-0.5 rounded bg-error px-1.5 py-0.5 text-error-content">{fault}</span>}
    </label>
  );
}

/** What is done with the chosen range, or from the first to the last chosen point. */
function Stretches() {
  const ready = useSong((state) => state.span !== null || state.chosen.length > 1);
  const copied = useSong((state) => state.clipboard !== null && "snippet" in state.clipboard);
  const tolerance = useSong((state) => state.view.tolerance);
  return (
    <>
      <div className="grid grid-cols-2 gap-1.5">
        <Place end={0} label="Stretch from" />
        <Place end={1} label="Stretch to" />
      </div>
      <Row title="Stretch">
        <Do words="Copy" off={!ready} onDo={() => void copyStretch()} />
        <Do words="Cut" off={!ready} onDo={() => void cutStretch()} />
        <Do words="Duplicate" off={!ready} onDo={() => void duplicateStretch()} />
        <Do words="Paste" off={!copied} title="At the chosen range, or at the playhead" onDo={() => void pasteStretch()} />
        <Do words="Paste at half length" off={!copied} onDo={() => void pasteStretch(0.5)} />
      </Row>
      <Row title={ready ? "Fade over the stretch" : "Fade over the first or last bar"}>
        <Do words="Fade in" onDo={() => fade("in")} />
        <Do words="Fade out" onDo={() => fade("out")} />
      </Row>
      <NumberField label="Freehand thinned within" unit="%" value={tolerance * 100} min={0} max={50} onCommit={async (wish) => setView({ tolerance: wish / 100 })} />
    </>
  );
}
