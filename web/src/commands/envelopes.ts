import { DOES, embed, freeRoles } from "../gestures/embedding";
import { findParameter } from "../state/catalogue";
import { chosenNow, setChoice } from "../state/choice";
import { chooseMany, stretchNow } from "../state/choosing";
import { driveFrom } from "../state/driving";
import { edit, editAndTell, editAsking } from "../state/edits";
import { leadTo } from "../state/lead";
import { showKeeping } from "../state/satchel";
import { song } from "../state/song";
import { setLane, setView, viewNow } from "../state/view";
import type { Command } from "./command";

const always = (): null => null;

/** What can be done to an envelope as a whole, in a clip or on a lane. */
export function envelopeCommands(envelopeId: string): Command[] {
  const { model, catalogue } = song();
  const envelope = model.envelopes[envelopeId];
  const placed = envelope && catalogue && findParameter(catalogue, model, envelope.target);
  if (!envelope || !placed) return [];
  const [kind, owner] = envelope.owner.split("/");
  const clip = kind === "clip" ? model.clips[owner] : null;
  const sourced = envelope.source ? "It has no points: a source makes its values." : null;
  const empty = envelope.points.length === 0 ? "It has no points." : null;
  const setOnly = placed.scale.set_only ? "This knob is only ever set." : null;
  const free = freeRoles(envelope.target, envelope.owner).filter((role) => role !== envelope.role);
  return [
    {
      id: "switch",
      words: envelope.on ? "Switch off" : "Switch on",
      what: envelope.on ? "It stays as it is and moves nothing" : "It moves its knob again",
      on: () => envelope.on,
      why: always,
      run: () => edit("switch_envelope", { envelope_id: envelopeId, on: !envelope.on }),
    },
    {
      id: "all",
      words: "Choose all",
      what: "Every point of it",
      held: "Ctrl A",
      why: () => sourced ?? empty,
      run: () =>
        chooseMany(
          envelopeId,
          envelope.points.map((_, i) => i),
          chosenNow().windowFrom,
        ),
    },
    {
      id: "keep",
      words: "Keep in the satchel",
      what: "To drop it on anything",
      why: () => sourced ?? empty,
      run: () => {
        setChoice({ envelopeId, chosen: [], span: null });
        showKeeping();
      },
    },
    ...free.map(
      (role): Command => ({
        id: `layer-${role}`,
        words: `Another that ${role}s`,
        what: `${clip ? `In ${clip.name}` : "On the track"}: ${DOES[role]}`,
        why: () => setOnly,
        run: () => embed(envelope.target, clip, role),
      }),
    ),
    ...(clip ? [] : laneCommands(envelope.target, owner, envelopeId)),
    {
      id: "drive",
      words: "Let it move another knob too",
      what: "A macro is made of it; then touch that knob",
      why: () => (envelope.role === "set" && placed.rests === undefined ? setOnly : "Only one that sets a knob can."),
      run: () => driveFrom(envelopeId),
    },
    {
      id: "sum",
      words: "What it does …",
      what: "Its role, its source and its clock, in the panel",
      why: always,
      run: () => {
        leadTo(envelopeId, clip ? chosenNow().regionId : null);
        setView({ sheet: "at-hand", panelOpen: true });
      },
    },
    {
      id: "clear",
      words: "Clear",
      what: "Take out all points; the envelope stays",
      removes: true,
      why: () => sourced ?? empty,
      run: () => editAndTell("clear_envelope", { envelope_id: envelopeId }),
    },
    {
      id: "remove",
      words: "Remove",
      what: clip ? "From every region that plays the clip" : "The lane, and what it moves",
      removes: true,
      why: always,
      run: () => editAndTell("remove_envelope", { envelope_id: envelopeId }),
    },
  ];
}

/** What a lane alone can do. */
function laneCommands(target: string, trackId: string, envelopeId: string): Command[] {
  const has = (list: "shown" | "pinned") => (viewNow()[list][trackId] ?? []).includes(target);
  return [
    {
      id: "pack",
      words: "Pack into the clips",
      what: "What lies in the chosen stretch, or in the range, goes into the clips beneath it",
      why: always,
      run: () => {
        const { start_tick, end_tick } = song().model.head.range;
        const [from_tick, to_tick] = stretchNow() ?? [start_tick, end_tick];
        return editAsking("pack", { envelope_id: envelopeId, from_tick, to_tick });
      },
    },
    {
      id: "show",
      words: has("shown") ? "Show no more" : "Show under the others",
      what: "Under the lane in focus; nothing is lost",
      on: () => has("shown"),
      why: always,
      run: () => setLane("shown", trackId, target, !has("shown")),
    },
    {
      id: "pin",
      words: has("pinned") ? "Unpin" : "Pin",
      what: "In view while the track is folded",
      on: () => has("pinned"),
      why: always,
      run: () => setLane("pinned", trackId, target, !has("pinned")),
    },
  ];
}
