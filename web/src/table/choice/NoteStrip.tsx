import type { Pass, Px, RegionPart } from "../../api/types";
import { NOTE_COMMANDS } from "../../commands";
import { tickToX } from "../../geometry/viewport";
import { editTyped } from "../../state/edits";
import { useHand } from "../../state/hand";
import { chosenNotes, useNotes } from "../../state/noteChoice";
import { useSong } from "../../state/song";
import { useShown } from "../../state/useShown";
import { useView } from "../../state/view";
import { useNarrow } from "../../ui/useNarrow";
import { ChoicePlace } from "./ChoicePlace";
import { ChoiceValue } from "./ChoiceValue";
import { ChoiceWords } from "./ChoiceWords";

const COMMON = NOTE_COMMANDS.filter(({ common }) => common);
const NO_PASSES: Pass[] = [];

/** How loud the chosen notes are, and what is done with them most. */
export function NoteWords() {
  useNotes();
  useSong((state) => state.model.clips);
  const { model } = useShown();
  const choice = chosenNotes();
  if (!choice) return null;
  const { clip, chosen, runs } = choice;
  const base = { clip_id: clip.id, runs };
  const first = clip.notes[chosen[0]].velocity;
  const tried = model.clips[clip.id]?.notes[chosen[0]]?.velocity ?? first;
  const type = (text: string) => {
    const velocity = Number(text);
    return Number.isInteger(velocity) && velocity >= 1 && velocity <= 127
      ? editTyped("set_velocity", { ...base, velocity })
      : Promise.resolve("Velocity is a number from 1 to 127.");
  };
  return (
    <>
      <ChoiceValue
        key={`${clip.id} ${chosen}`}
        label="Velocity of the chosen notes"
        text={String(tried)}
        value={first}
        min={1}
        max={127}
        step={1}
        change="set_velocity"
        inputs={(velocity) => ({ ...base, add: velocity - first })}
        onType={type}
      />
      <ChoiceWords list={COMMON} subject={{ kind: "notes" }} />
    </>
  );
}

/** Under the strip that the chosen notes stand in, from the first of them on. */
export function NoteStrip({ regions, height }: { regions: RegionPart[]; height: Px }) {
  const clipId = useNotes((state) => (state.chosen.length > 0 ? state.clipId : null));
  const first = useNotes((state) => state.chosen[0]);
  const note = useSong(({ model }) => model.clips[clipId ?? ""]?.notes[first]);
  const region = regions.find(({ clip_id }) => clip_id === clipId);
  const passes = useSong((state) => state.passes[region?.id ?? ""]) ?? NO_PASSES;
  const busy = useHand((state) => state.hand !== null);
  const narrow = useNarrow();
  const pxPerTick = useView((state) => state.pxPerTick);
  const pass = note && passes.find(([from, to, into]) => note.tick >= into && note.tick < into + to - from);
  if (!note || !pass || busy || narrow) return null;
  return (
    <ChoicePlace left={tickToX({ pxPerTick }, pass[0] + note.tick - pass[2])} height={height} label="The chosen notes">
      <NoteWords />
    </ChoicePlace>
  );
}
