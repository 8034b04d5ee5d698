import { clipFor, DOES, embed, freeRoles } from "../gestures/embedding";
import { acting, movesNow } from "../state/acting";
import { findParameter, heldIn, moveOf, ownerOf, trackOf } from "../state/catalogue";
import { chosenNow } from "../state/choice";
import { copiedValue, copyValue, pasteWords } from "../state/copiedValue";
import { driveOne, macrosOf } from "../state/driving";
import { edit, editAndTell } from "../state/edits";
import { focusOn } from "../state/focus";
import { unfold } from "../state/folding";
import { lookup } from "../state/lookup";
import { beginLearning } from "../state/mappings";
import { tell } from "../state/notice";
import { performingNow, toggleArm } from "../state/performing";
import { song } from "../state/song";
import { typeValue } from "../state/typing";
import { setView } from "../state/view";
import type { Command } from "./command";

const always = (): null => null;
const SEVERAL = "Several move it: switch each at its strip, or at its mark.";

/** What can be done to a parameter of a device, a channel or the song. */
export function knobCommands(address: string): Command[] {
  const { model, catalogue } = song();
  const placed = catalogue && findParameter(catalogue, model, address);
  if (!placed) return [];
  const { entry, scale } = placed;
  const home = trackOf(model, address);
  const find = lookup(model);
  const acts = acting(find, address);
  const fixed = entry.automatable ? null : `It cannot be automated: ${entry.reason}`;
  const clip = clipFor(model, chosenNow().regionId, address);
  const roleIn = (owner: string) => freeRoles(address, owner).find((role) => !scale.set_only || role === "set");
  const inClip = clip && roleIn(`clip/${clip.id}`);
  const onLane = roleIn(`track/${home}`);
  const mine = (find.targets[address] ?? []).map(({ id }) => id);
  return [
    {
      id: "embed",
      words: clip ? `Embed in ${clip.name}` : "Embed in a clip",
      what: inClip ? `An envelope that travels with the clip and ${DOES[inClip]}` : "An envelope that travels with it",
      why: () => fixed ?? (clip ? (inClip ? null : "It has one there already.") : "Choose a region first."),
      run: () => clip && inClip && embed(address, clip, inClip),
    },
    {
      id: "lane",
      words: "Add a lane",
      what: onLane ? `On the track, over the whole song; it ${DOES[onLane]}` : "On the track, over the whole song",
      why: () => fixed ?? (onLane ? null : "It has one already."),
      run: () => onLane && embed(address, null, onLane),
    },
    {
      id: "switch",
      words: mine.every((id) => model.envelopes[id].on) ? "Switch its move off" : "Switch its move on",
      what: "It stays as it is; while it is off the resting value is heard",
      why: () => (mine.length === 1 ? null : mine.length > 1 ? SEVERAL : "No envelope moves it."),
      run: () => edit("switch_envelope", { envelope_id: mine[0], on: !model.envelopes[mine[0]].on }),
    },
    {
      id: "back",
      words: "Hand back",
      what: "To what moves it",
      why: () => (heldIn(ownerOf(model, address), placed) ? null : "No hand holds it."),
      run: () => edit("hand_back", { addresses: [address] }),
    },
    {
      id: "type",
      words: "Type a value …",
      what: "In its unit; 50 % is half of its travel",
      held: "Enter",
      why: always,
      run: () => typeValue(address),
    },
    {
      id: "copy-value",
      words: "Copy value",
      what: "What is heard of it at the playhead, for any other knob or points",
      why: always,
      run: () => {
        const copied = copyValue(address);
        if (copied) tell("done", `${copied.text} of ${entry.name} is ready to paste`);
      },
    },
    {
      id: "paste-value",
      words: "Paste value",
      what: pasteWords(scale.unit),
      why: () => (copiedValue() ? null : "Copy the value of a knob first."),
      run: () => {
        const copied = copiedValue();
        return copied && editAndTell("set_knob", { address, value: copied.value, from: copied.address });
      },
    },
    {
      id: "reset",
      words: "Back to its default",
      what: movesNow(acts) ? "Its resting value; what moves it waits until it is handed back" : "Its resting value",
      held: "Delete",
      why: always,
      run: () => edit("set_knob", { address, value: entry.default }),
    },
    {
      id: "show",
      words: "Show on its track",
      what: "Its moves and what is heard, one over the other",
      why: () => (moveOf(model, address) ? "It is a setting of a move." : null),
      run: () => {
        focusOn(address);
        setView({ trackId: home });
        unfold(home);
      },
    },
    {
      id: "sum",
      words: "Where its value comes from …",
      what: "Step by step, in the panel",
      why: always,
      run: () => {
        focusOn(address);
        setView({ trackId: home, sheet: "at-hand", panelOpen: true });
      },
    },
    {
      id: "arm",
      words: "Arm",
      what: "What hands do with it is written while it records",
      on: () => performingNow().armed.knobs.includes(address),
      why: () => fixed,
      run: () => toggleArm("knobs", address),
    },
    {
      id: "learn",
      words: "Learn a control",
      what: "The control turned next turns it",
      why: always,
      run: () => beginLearning(address),
    },
    ...macrosOf(catalogue, model)
      .filter((macro) => macro.address !== address)
      .map(
        (macro): Command => ({
          id: `drive-${macro.address}`,
          words: `Drive by ${macro.words}`,
          what: "Over all of its travel; its ends are set in the sum of the macro",
          why: () => fixed,
          run: () => driveOne(macro.address, address),
        }),
      ),
  ];
}
