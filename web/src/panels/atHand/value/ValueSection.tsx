import { CornerLeftUp, Hand } from "lucide-react";
import type { Explanation } from "../../../api/types";
import { findParameter, moveOf } from "../../../state/catalogue";
import { edit } from "../../../state/edits";
import { setHand } from "../../../state/hand";
import { leadTo } from "../../../state/lead";
import { toggleArm, usePerforming } from "../../../state/performing";
import { useSong } from "../../../state/song";
import { typeValue } from "../../../state/typing";
import { useShown } from "../../../state/useShown";
import { setView, useView } from "../../../state/view";
import { Deed } from "../../../ui/Deed";
import { Needle } from "../../../ui/Needle";
import { useNarrow } from "../../../ui/useNarrow";
import { Conflicts } from "./Conflicts";
import { Drives } from "./Drives";
import { StepCard } from "./StepCard";

interface Props {
  address: string;
  found: Explanation | null;
  fault: string | null;
}

/** Why a parameter has its value, step by step. */
export function ValueSection({ address, found, fault }: Props) {
  const narrow = useNarrow();
  if (fault) return <p className="text-error">{fault}</p>;
  if (!found) return <progress className="progress w-40" aria-label="Asking why" />;
  return (
    <div className="flex flex-col gap-2" data-testid="sum">
      <WayBack address={address} />
      <div className="flex items-end gap-2">
        <div className="min-w-0 grow">
          <button
            type="button"
            className="sum-heard"
            data-testid="sum-heard"
            title="Type a value"
            onClick={(event) => typeValue(address, event.currentTarget)}
          >
            {found.text}
          </button>
          <p className="faint text-xs">heard at {found.position}</p>
        </div>
        {!narrow && <PlaceSwitch />}
      </div>
      <ol className="flex flex-col gap-1.5" aria-label="How it comes about">
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
      title="Tell it under the pointer, over the strips of an unfolded track, rather than at the playhead"
      onClick={() => {
        setView({ sumAtPointer: !atPointer });
        setHand({ pointer: null });
      }}
    >
      at the pointer
    </button>
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
