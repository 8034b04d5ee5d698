import type { Normalised } from "../api/types";
import { player } from "../sound/player";
import { engineValue, findParameter, knobValue } from "../state/catalogue";
import { edit } from "../state/edits";
import { heardNow } from "../state/heardNow";
import { lookup } from "../state/lookup";
import { learnt } from "../state/mappings";
import { tell } from "../state/notice";
import { isArmed, performingNow, setHandAt } from "../state/performing";
import { previewer, type Trial } from "../state/previewer";
import { shownModel, song } from "../state/song";
import { transportNow } from "../state/transport";
import { movePass } from "./movePass";

/** A hand on a parameter: whose it is, and what it has done so far. */
interface Hold {
  who: string;
  start: Normalised;
  value: Normalised;
  moved: boolean;
  /** Whether it is being written; else it turns the knob. */
  written: boolean;
  trial: Trial | null;
  /** The same for all that this hand holds at once: one gesture, one step of undo. */
  gesture: string;
  /** What was said when it took the parameter from another hand. */
  lost: string;
}

/** A hand that is not felt has let go when nothing came from it for so long. */
const RESTS_MS = 400;

let gestures = 0;
const holds = new Map<string, Hold>();

/** What a parameter stands at for a hand that takes hold of it: what is heard where it moves, else its knob. */
export function standsAt(address: string): Normalised {
  const { catalogue } = song();
  const inHand = holds.get(address);
  if (inHand?.moved || inHand?.written) return inHand.value;
  const found = catalogue && findParameter(catalogue, song().model, address);
  if (!found) return 0;
  const { targets, drivers } = lookup(song().model);
  const moves = address in drivers || (targets[address] ?? []).some(({ acts }) => acts);
  const held = found.owner.devices?.find(({ id }) => id === found.deviceId)?.held[found.entry.id];
  const exact = transportNow().playing ? undefined : song().exact[address]?.[0];
  return held ?? (moves ? (exact ?? heardNow(address)) : null) ?? knobValue(found.owner, found);
}

const scaleOf = (address: string) => {
  const { catalogue, model } = song();
  return catalogue ? findParameter(catalogue, model, address)?.scale : undefined;
};

function sounds(address: string, value: Normalised): void {
  const scale = scaleOf(address);
  if (scale) player.turn(address, engineValue(scale, value));
}

/**
 * A hand takes hold of a parameter, at a moment of the browser's clock; of two, the last to touch has it. Returns where
 * it stands.
 */
export function touch(address: string, who: string, at = performance.now()): Normalised {
  learnt({ address });
  const before = holds.get(address);
  const start = standsAt(address);
  const lost = before && before.who !== who ? `${nameOf(address)}: ${who} has it now, no longer ${before.who}.` : "";
  if (lost) tell("done", lost);
  before?.trial?.end(false);
  const written = isWritten(address);
  const gesture = [...holds.values()].find((one) => one.who === who)?.gesture ?? `hand-${++gestures}-${Date.now()}`;
  holds.set(address, {
    who,
    start,
    value: start,
    moved: false,
    written,
    trial: written ? null : previewer(),
    gesture,
    lost,
  });
  if (written) {
    movePass.touch(address, start, at);
    setHandAt(address, start);
    sounds(address, start);
  }
  return start;
}

/** The hand turns it. Ignored from a hand that has lost it to another. */
export function turn(address: string, value: Normalised, who: string, at = performance.now()): void {
  const hold = holds.get(address);
  if (hold?.who !== who || !Number.isFinite(value)) return;
  hold.value = Math.min(Math.max(value, 0), 1);
  hold.moved = true;
  setHandAt(address, hold.value);
  sounds(address, hold.value);
  if (hold.written) movePass.move(address, hold.value, at);
  else hold.trial?.ask("set_knob", { address, value: hold.value });
}

/** The hand lets go. What it did is written, or the knob stays where it is. */
export function release(address: string, who: string, at = performance.now()): void {
  const hold = holds.get(address);
  if (hold?.who !== who) return;
  holds.delete(address);
  const done = () => {
    if (holds.has(address)) return;
    setHandAt(address, null);
    if (!hold.written) player.letGo(address);
  };
  if (hold.written) {
    if (movePass.going) movePass.release(address, at);
    else player.letGo(address);
    return done();
  }
  hold.trial?.end(hold.moved);
  if (hold.moved)
    void edit("set_knob", { address, value: hold.value, pass: hold.gesture })
      .then(done)
      .then(() => hold.lost && tell("done", hold.lost));
  else done();
}

/** The hand gives up: nothing is changed. What was written so far stays. */
export function giveUp(address: string, who: string): void {
  const hold = holds.get(address);
  if (hold?.who !== who) return;
  if (hold.written) return release(address, who);
  hold.trial?.end(false);
  holds.delete(address);
  setHandAt(address, null);
  player.letGo(address);
}

/** Whether what a hand does with a parameter now is being written. */
export const isWritten = (address: string): boolean => movePass.going && isArmed(performingNow().armed, address);

const brief = new Map<string, number>();

/** One turn of a hand whose touch is not felt, as of keys and of most controllers: it lets go when it rests. */
export function turnBriefly(address: string, value: Normalised, who: string, at = performance.now()): void {
  if (!holdsIt(address, who)) touch(address, who, at);
  turn(address, value, who, at);
  clearTimeout(brief.get(address));
  brief.set(
    address,
    window.setTimeout(() => release(address, who), RESTS_MS),
  );
}

/** Whether a hand of somebody holds a parameter. */
export const holdsIt = (address: string, who: string): boolean => holds.get(address)?.who === who;

/** Lets go of all that somebody holds, as when a controller is pulled out. */
export function releaseAll(who: string): void {
  for (const [address, hold] of [...holds]) if (hold.who === who) release(address, who);
}

function nameOf(address: string): string {
  const { catalogue } = song();
  return (catalogue && findParameter(catalogue, shownModel(song()), address)?.entry.name) ?? address;
}
