import { MoreHorizontal } from "lucide-react";
import type { Corners, EnvelopePart } from "../api/types";
import { CommandMenu } from "../commands/CommandMenu";
import { hueStyle, parameterHue } from "../geometry/hue";
import { restOnThing, thingMenu } from "../gestures/menus";
import { findParameter } from "../state/catalogue";
import { useChoice } from "../state/choice";
import { edit, editAndTell } from "../state/edits";
import { leadTo } from "../state/lead";
import { useSong } from "../state/song";
import { MoveMark } from "./MoveMark";
import { SmallCurve } from "./SmallCurve";

const NO_CORNERS: Corners = [];
const ACTS = { set: "sets", shift: "shifts", scale: "scales" };

interface Props {
  label: string;
  envelopes: EnvelopePart[];
  /** Where a press leads: the region in which a clip's move is looked at. */
  regionOf: (envelope: EnvelopePart) => string | null;
  /** Whether it is said where each lives. */
  placed?: boolean;
  /** What is said while there is none. */
  none: string;
}

/** Moves, each with its mark, which switches it off and on, its curve, and all that can be done to it. */
export function MoveList({ label, envelopes, regionOf, placed = false, none }: Props) {
  return (
    <section className="flex flex-col gap-1" aria-label={label}>
      <div className="flex items-baseline gap-1">
        <h3 className="faint grow text-xs">{label}</h3>
        {envelopes.length > 1 && <ForAll envelopes={envelopes} />}
      </div>
      {envelopes.length === 0 && <p className="faint text-xs">{none}</p>}
      <ul className="flex flex-col">
        {envelopes.map((envelope) => (
          <MoveRow key={envelope.id} envelope={envelope} regionId={regionOf(envelope)} placed={placed} />
        ))}
      </ul>
    </section>
  );
}

/** What is done to all of them at once. */
function ForAll({ envelopes }: { envelopes: EnvelopePart[] }) {
  const envelope_ids = envelopes.map(({ id }) => id);
  const on = envelopes.some((envelope) => envelope.on);
  return (
    <>
      <button
        type="button"
        className="btn btn-ghost btn-xs font-normal pointer-coarse:h-11"
        title={on ? "Switch them all off; they stay as they are" : "Switch them all on again"}
        onClick={() => void edit("switch_envelopes", { envelope_ids, on: !on })}
      >
        {on ? "All off" : "All on"}
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-xs font-normal pointer-coarse:h-11"
        title="Take them all away, as one step"
        onClick={() => void editAndTell("remove_envelopes", { envelope_ids })}
      >
        Remove all
      </button>
    </>
  );
}

function MoveRow({ envelope, regionId, placed }: { envelope: EnvelopePart; regionId: string | null; placed: boolean }) {
  const model = useSong((state) => state.model);
  const catalogue = useSong((state) => state.catalogue);
  const corners = useSong((state) => state.curves[envelope.id]) ?? NO_CORNERS;
  const rests = useSong((state) => state.rested.includes(envelope.id));
  const inHand = useChoice((state) => state.envelopeId === envelope.id);
  const found = catalogue && findParameter(catalogue, model, envelope.target);
  const name = found?.entry.name ?? "a knob that is gone";
  const clip = envelope.owner.startsWith("clip/") ? model.clips[envelope.owner.slice("clip/".length)] : undefined;
  const place = clip ? `in ${clip.name}` : "on the lane";
  const length = envelope.own_length_ticks ?? clip?.length_ticks ?? corners[corners.length - 2] ?? 0;
  const subject = { kind: "envelope", envelopeId: envelope.id } as const;
  return (
    <li
      className="move-row"
      style={hueStyle(parameterHue(envelope.target))}
      onContextMenu={(event) => thingMenu(event, subject)}
      onPointerDown={(event) => restOnThing(event, subject)}
    >
      <MoveMark envelope={envelope} name={name} />
      <button
        type="button"
        className="move-name"
        aria-pressed={inHand}
        title="Take it in hand"
        onClick={() => leadTo(envelope.id, regionId)}
      >
        <span className="hue block truncate font-semibold">{name}</span>
        <span className="faint block truncate text-xs">
          {ACTS[envelope.role]}
          {placed && ` ${place}`}
          {!envelope.on && ", off"}
          {rests && ", rests"}
        </span>
      </button>
      <SmallCurve
        corners={corners}
        from={0}
        to={length}
        width={64}
        height={22}
        look={clip ? "stitched" : "lane"}
        off={!envelope.on || rests}
      />
      <CommandMenu
        subject={subject}
        label={`More for ${name} ${place}`}
        title="All that can be done to it"
        look="btn btn-ghost btn-xs btn-square pointer-coarse:size-11"
      >
        <MoreHorizontal size={14} aria-hidden="true" />
      </CommandMenu>
    </li>
  );
}
