import { stepTo } from "../gestures/tracks";
import { edit, editAndTell, editAsking } from "../state/edits";
import { toggleFold } from "../state/folding";
import { holdsRegions } from "../state/holds";
import { toggleListening, toggleRest } from "../state/listening";
import { lookup } from "../state/lookup";
import { performingNow, toggleArm } from "../state/performing";
import { showPresets } from "../state/presets";
import { song } from "../state/song";
import { setView, turnNotes, viewNow } from "../state/view";
import { nameTrack } from "../state/wishes";
import type { Command } from "./command";

const always = (): null => null;

/** What can be done to a track. */
export function trackCommands(trackId: string): Command[] {
  const { model } = song();
  const track = model.tracks.find(({ id }) => id === trackId);
  if (!track) return [];
  const carrier = track.kind === "carrier" ? "A track of carriers has no sound of its own." : null;
  const master = track.kind === "master" ? "The master stays as it is." : null;
  const aside = track.kind === "return" ? "A return is heard through what is sent to it." : master;
  const holds = holdsRegions(track);
  const clips = new Set((lookup(model).regions[`track/${trackId}`] ?? []).map(({ clip_id }) => clip_id));
  const moves = [...clips].some((id) => (lookup(model).envelopes[`clip/${id}`] ?? []).length > 0);
  const step = (id: string, words: string, what: string, held: string, by: 1 | -1): Command => ({
    id,
    words,
    what,
    held,
    why: () => master ?? (stepTo(track, by) ? null : "It stands at the end already."),
    run: () => edit("move_track", () => ({ track_id: trackId, before: stepTo(track, by) ?? trackId })),
  });
  return [
    {
      id: "name",
      words: "Name",
      what: "Another name",
      held: "F2",
      why: always,
      run: () => nameTrack(trackId),
    },
    {
      id: "fold",
      words: viewNow().unfolded.includes(trackId) ? "Fold" : "Unfold",
      what: "Its moves, its lanes and what is heard, one over the other",
      key: "unfold",
      why: always,
      run: () => toggleFold(trackId),
    },
    {
      id: "strip",
      words: viewNow().notes[trackId] ? "Show its moves" : "Show its notes",
      what: "In the strip of its clips",
      key: "notes",
      why: () => (track.kind === "notes" ? null : "It has no notes."),
      run: () => turnNotes(trackId),
    },
    {
      id: "mute",
      words: "Mute",
      what: "Not heard while listening; no envelope moves this",
      on: () => song().muted.includes(trackId),
      why: () => carrier,
      run: () => toggleListening(trackId, "muted"),
    },
    {
      id: "solo",
      words: "Solo",
      what: "Only this is heard, with what is soloed too",
      on: () => song().soloed.includes(trackId),
      why: () => carrier ?? aside,
      run: () => toggleListening(trackId, "soloed"),
    },
    {
      id: "rest",
      words: "Rest its moves",
      what: "Its lanes and what moves its knobs are not heard for a listen; the song stays as it is",
      on: () => song().resting.includes(`track/${trackId}`),
      why: always,
      run: () => toggleRest(`track/${trackId}`),
    },
    {
      id: "arm",
      words: "Arm",
      what: "What hands do with its knobs is written while it records",
      on: () => performingNow().armed.tracks.includes(trackId),
      why: () => carrier,
      run: () => toggleArm("tracks", trackId),
    },
    {
      id: "duplicate",
      words: "Duplicate",
      what: "With its moves, turned to the new track",
      why: () => master,
      run: () => editAndTell("duplicate_track", { track_id: trackId, moves: true }),
    },
    {
      id: "duplicate-bare",
      words: "Duplicate without its moves",
      what: "Its devices and its material alone",
      why: () => master,
      run: () => editAndTell("duplicate_track", { track_id: trackId, moves: false }),
    },
    {
      id: "group",
      words: "Into a new group",
      what: "A track that it sounds into, with a chain of its own",
      why: () => carrier ?? master,
      run: () => editAndTell("make_group", { track_ids: [trackId] }),
    },
    {
      id: "presets",
      words: "Presets of the chain …",
      what: "Use one for all its devices, or keep this",
      why: () => carrier,
      run: () => showPresets(track, null),
    },
    {
      id: "lay-out",
      words: "Lay all clip moves out",
      what: "They become points of its lanes; what is heard stays",
      why: () => (holds && moves ? null : "No clip of it has moves."),
      run: () => editAsking("lay_out", { track_id: trackId }),
    },
    step("up", "Up", "Above the track over it", "Alt ↑", -1),
    step("down", "Down", "Under the track below it", "Alt ↓", 1),
    {
      id: "track",
      words: "Track …",
      what: "Its hue, its output and its lanes, in the panel",
      why: always,
      run: () => setView({ trackId, sheet: "track", panelOpen: true }),
    },
    {
      id: "remove",
      words: "Remove",
      what: "With its regions and lanes",
      removes: true,
      why: () => master,
      run: () => editAsking("remove_track", { track_id: trackId }),
    },
  ];
}
