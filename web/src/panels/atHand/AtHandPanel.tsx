import { Pin, PinOff } from "lucide-react";
import type { EnvelopePart } from "../../api/types";
import { hueStyle, parameterHue } from "../../geometry/hue";
import { type About, type AtHand, useAtHand } from "../../state/atHand";
import { findParameter } from "../../state/catalogue";
import { useChoice } from "../../state/choice";
import { useSong } from "../../state/song";
import { setView, useView } from "../../state/view";
import { Section } from "../../ui/Section";
import { EnvelopeSection } from "./envelope/EnvelopeSection";
import { NotesSection } from "./notes/NotesSection";
import { PointsSection } from "./points/PointsSection";
import { TrackSection } from "./TrackSection";
import { useExplanation } from "./value/useExplanation";
import { ValueSection } from "./value/ValueSection";

type Part = "value" | "envelope" | "points";

/** What each choice leaves open; the rest is folded to a line. */
const OPEN: Record<About, Part[]> = {
  notes: [],
  points: ["points"],
  envelope: ["value", "envelope"],
  value: ["value"],
  track: [],
};

/**
 * Which parts are open: those of what one is about, or as they were turned last for that. Without an envelope its part
 * says how to make one.
 */
function useParts(about: About, bare: boolean) {
  const folds = useView((state) => state.folds);
  const id = (part: Part) => `at-hand-${about}-${part}`;
  const isOpen = (part: Part) => folds[id(part)] ?? (OPEN[about].includes(part) || (bare && part === "envelope"));
  return { isOpen, turn: (part: Part) => setView({ folds: { ...folds, [id(part)]: !isOpen(part) } }) };
}

/**
 * Goes with the choice: the parameter and its value, the envelope in hand, the chosen points; or the notes; or the
 * track.
 */
export function AtHandPanel() {
  const atHand = useAtHand();
  if (atHand.about === "notes") return <NotesSection />;
  if (atHand.address === null) return <TrackSection track={atHand.track} />;
  return <OfParameter atHand={atHand} address={atHand.address} />;
}

function OfParameter({ atHand, address }: { atHand: AtHand; address: string }) {
  const { about, envelope, envelopes } = atHand;
  const catalogue = useSong((state) => state.catalogue);
  const model = useSong((state) => state.model);
  const { isOpen, turn } = useParts(about, envelope === undefined);
  const { found, fault } = useExplanation(address);
  const chosen = useChoice((state) => (state.envelopeId === envelope?.id ? state.chosen.length : 0));
  const placed = catalogue && findParameter(catalogue, model, address);
  const home = envelope && model.clips[envelope.owner.slice("clip/".length)];
  if (!placed)
    return (
      <div className="flex items-center p-3" data-testid="at-hand">
        <p className="faint grow">This knob is gone.</p>
        <PinButton address={address} />
      </div>
    );
  return (
    <div style={hueStyle(parameterHue(address))} data-testid="at-hand">
      <header className="flex items-center gap-2 px-3 pt-3 pb-1">
        <h2 className="min-w-0 grow truncate text-base font-bold">
          <span className="hue">{found?.name ?? placed.entry.name}</span> of {found?.owner ?? placed.owner.name}
        </h2>
        <PinButton address={address} />
      </header>
      <Section name="Value" line={found?.text} open={isOpen("value")} onTurn={() => turn("value")}>
        <ValueSection address={address} found={found} fault={fault} />
      </Section>
      <Section
        name="Envelope"
        line={envelope ? lineOf(envelope, home?.name) : "none"}
        open={isOpen("envelope")}
        onTurn={() => turn("envelope")}
      >
        <EnvelopeSection address={address} envelope={envelope} envelopes={envelopes} />
      </Section>
      {envelope && !envelope.source && (
        <Section
          name="Points"
          line={chosen > 0 ? `${chosen} of ${envelope.points.length} chosen` : `${envelope.points.length}, none chosen`}
          open={isOpen("points")}
          onTurn={() => turn("points")}
        >
          <PointsSection envelope={envelope} scale={placed.scale} />
        </Section>
      )}
    </div>
  );
}

/** An envelope in a line: where it lives, what it does. */
function lineOf(envelope: EnvelopePart, clip?: string): string {
  const place = clip ? `in ${clip}` : "on the lane";
  return `${envelope.role}s, ${place}${envelope.on ? "" : ", off"}`;
}

/** Keeps the panel with a parameter, whatever is chosen. */
function PinButton({ address }: { address: string }) {
  const pinned = useView((state) => state.pinnedAtHand === address);
  return (
    <button
      type="button"
      className="btn btn-ghost btn-xs font-normal pointer-coarse:h-11"
      aria-pressed={pinned}
      title={pinned ? "Go with what is chosen again" : "Stay with this parameter, whatever is chosen"}
      onClick={() => setView({ pinnedAtHand: pinned ? null : address })}
    >
      {pinned ? <Pin size={14} aria-hidden="true" /> : <PinOff size={14} aria-hidden="true" />}
      {pinned ? "Pinned" : "Pin"}
    </button>
  );
}
