import { clsx } from "clsx";
import { Circle, CornerLeftUp, Ear, Hand, Minus, MoreHorizontal, Scissors, Split } from "lucide-react";
import { type ReactNode, useEffect, useState } from "react";
import { Refused, songApi } from "../../api/client";
import type { Explanation, Step } from "../../api/types";
import { hueStyle, parameterHue } from "../../geometry/hue";
import { askAgain } from "../../state/askingAgain";
import { findParameter, moveOf } from "../../state/catalogue";
import { edit } from "../../state/edits";
import { focusOn } from "../../state/focus";
import { setHand, useHand } from "../../state/hand";
import { leadTo } from "../../state/lead";
import { toggleArm, usePerforming } from "../../state/performing";
import { useSong } from "../../state/song";
import { transportNow, useTransport } from "../../state/transport";
import { useShown } from "../../state/useShown";
import { setView, useView } from "../../state/view";
import { Deed } from "../../ui/Deed";
import { Needle } from "../../ui/Needle";
import { useNarrow } from "../../ui/useNarrow";
import { Conflicts } from "./Conflicts";
import { Drives } from "./Drives";
import { EnvelopePanel } from "./EnvelopePanel";

const MARKS: Record<string, ReactNode> = {
  knob: <Circle size={16} />,
  held: <Hand size={16} />,
  macro: <Split size={16} />,
  lane: <Minus size={16} />,
  clip: <MoreHorizontal size={16} />,
  carrier: <MoreHorizontal size={16} />,
  limits: <Scissors size={16} />,
  heard: <Ear size={16} />,
};

function useExplanation(address: string | null): { found: Explanation | null; fault: string | null } {
  const [state, setState] = useState<{ found: Explanation | null; fault: string | null }>({ found: null, fault: null });
  const revision = useSong((s) => s.revision);
  const atPointer = useView((s) => s.sumAtPointer);
  const pointed = useHand((s) => (atPointer ? s.pointer : null));
  const still = useTransport((s) => pointed ?? (s.playing ? -1 : s.playhead));
  const playing = useTransport((s) => s.playing && pointed === null);
  const songId = useSong((s) => s.songId);
  // biome-ignore lint/correctness/useExhaustiveDependencies: worked out again just when one of these changes
  useEffect(() => {
    if (!address || songId === null) return;
    let over = false;
    const take = (found: Explanation | null, fault: string | null = null) => !over && setState({ found, fault });
    void songApi(songId)
      .explanation(address, pointed ?? transportNow().playhead)
      .then(take, (error) => take(null, error instanceof Refused ? error.message : "No answer."));
    const again = ({ explanation }: { explanation: Explanation | null }) =>
      explanation?.address === address && take(explanation);
    const rest = playing ? askAgain({ addresses: [], explained: address, take: again }) : undefined;
    return () => {
      over = true;
      rest?.();
    };
  }, [address, songId, revision, still, playing, pointed]);
  return state;
}

/** Why the parameter in focus has its value at the playhead, step by step; and the envelope at hand. */
export function SumPanel({ address }: { address: string | null }) {
  const { found, fault } = useExplanation(address);
  const narrow = useNarrow();
  if (!address) return <p className="faint p-4">Touch a knob to see where its value comes from.</p>;
  if (fault) return <p className="p-4 text-error">{fault}</p>;
  if (!found) return <progress className="progress m-4 w-40" aria-label="Asking why" />;
  return (
    <div className="flex flex-col gap-2 p-3" style={hueStyle(parameterHue(address))} data-testid="sum">
      <WayBack address={address} />
      <div>
        <div className="flex items-center gap-1">
          <p className="faint min-w-0 grow text-xs">
            {found.name} of {found.owner}, heard at {found.position}
          </p>
          {!narrow && <PlaceSwitch />}
        </div>
        <p className="text-2xl leading-8 font-bold" data-testid="sum-heard">
          {found.text}
        </p>
      </div>
      <ol className="flex flex-col gap-1.5">
        {found.steps.map((step, i) => (
          <StepCard key={i} step={step} />
        ))}
      </ol>
      <Conflicts address={address} tick={found.tick} />
      <ArmDeed address={address} />
      {found.steps[0]?.kind === "held" && (
        <button
          type="button"
          className="btn btn-sm btn-primary pointer-coarse:h-11"
          onClick={() => void edit("hand_back", { addresses: [address] })}
        >
          <Hand size={14} /> Hand {found.name} back
        </button>
      )}
      <Drives address={address} />
      <EnvelopePanel address={address} />
    </div>
  );
}

/** From a setting of a move back to the move. */
function WayBack({ address }: { address: string }) {
  const catalogue = useSong((state) => state.catalogue);
  const { model, find } = useShown();
  const move = moveOf(model, address);
  const moved = catalogue && move && findParameter(catalogue, model, move.target);
  if (!move || !moved) return null;
  const clipId = move.owner.startsWith("clip/") ? move.owner.slice("clip/".length) : null;
  const region = clipId ? find.placed[clipId]?.[0] : undefined;
  return (
    <button
      type="button"
      className="btn btn-sm justify-start font-normal pointer-coarse:h-11"
      onClick={() => leadTo(move.id, region?.id ?? null)}
    >
      <CornerLeftUp size={14} /> {moved.entry.name} {clipId ? `in ${model.clips[clipId]?.name}` : "lane"}
    </button>
  );
}

/** Whether the sum is told at the playhead or under the pointer. */
function PlaceSwitch() {
  const atPointer = useView((state) => state.sumAtPointer);
  return (
    <button
      type="button"
      className={`btn btn-xs font-normal pointer-coarse:h-10 ${atPointer ? "btn-secondary" : ""}`}
      aria-pressed={atPointer}
      title="EditNotice it under the pointer, over the strips of an unfolded track, rather than at the playhead"
      onClick={() => {
        setView({ sumAtPointer: !atPointer });
        setHand({ pointer: null });
      }}
    >
      at the pointer
    </button>
  );
}

function StepCard({ step }: { step: Step }) {
  const words = [step.kind, step.name].filter(Boolean).join(" ");
  const envelopeId = step.envelope_id;
  const lead = envelopeId ? () => leadTo(envelopeId, step.region_id) : undefined;
  const Tag = lead ? "button" : "div";
  return (
    <li className={step.overruled || step.waits ? "opacity-50" : ""}>
      <Tag
        {...(lead ? { type: "button" as const, onClick: lead, title: "Go to this envelope" } : {})}
        className={clsx("step", lead && "step-leads")}
      >
        <span className="hue shrink-0" aria-hidden="true">
          {MARKS[step.kind]}
        </span>
        <span className="min-w-0 grow">
          <span className="faint block truncate text-xs">{words}</span>
          <span className="block font-semibold">
            {step.does ?? step.text}
            {step.overruled ? ", overruled" : ""}
            {step.waits ? ", waits" : ""}
          </span>
        </span>
        {step.does && !step.overruled && !step.waits && step.kind !== "knob" && (
          <span className="faint shrink-0 text-xs">{step.text}</span>
        )}
      </Tag>
      {step.inputs.length > 0 && (
        <p className="flex flex-wrap gap-1 pt-1 pl-7" role="group" aria-label="Made with">
          {step.inputs.map(({ name, text, by, address }) => (
            <button
              key={name}
              type="button"
              className="btn btn-xs font-normal pointer-coarse:h-10"
              title={by ? `Moved by a ${by}: why it is so` : "Why it is so"}
              onClick={() => focusOn(address)}
            >
              {name} {text}
              {by && <b className="hue">{by}</b>}
            </button>
          ))}
        </p>
      )}
    </li>
  );
}

/** Arms the parameter by itself. */
function ArmDeed({ address }: { address: string }) {
  const on = usePerforming(({ armed }) => armed.knobs.includes(address));
  return (
    <Deed
      words={on ? "Armed" : "Arm it"}
      title="What hands do with it is written while it records"
      icon={<Needle threaded={on} />}
      pressed={on}
      onDo={() => toggleArm("knobs", address)}
    />
  );
}
