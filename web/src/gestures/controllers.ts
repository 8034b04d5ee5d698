import type { Mapping } from "../api/types";
import { player } from "../sound/player";
import { findParameter } from "../state/catalogue";
import { edit } from "../state/edits";
import { learningNow, learnt, mappingsNow, setLearning } from "../state/mappings";
import { eightNow, turnPage } from "../state/sets";
import { song } from "../state/song";
import { releaseAll, standsAt, turnBriefly } from "./hands";
import { Pickup } from "./midi/pickup";
import { Reader, type Said, stepsOf } from "./midi/reader";
import { toggleRecording } from "./recording";

/** An encoder goes all the way in so many steps. */
const STEPS = 200;
/** One control is acted on at most so often; of a flood the last value counts. */
const APART_MS = 4;
/** What else moves a parameter by more makes a control wait to catch it again. */
const MOVED = 0.02;
/** So many values of a control tell what kind it is. */
const TOLD_BY = 3;

const readers = new Map<string, Reader>();
const pickups = new Map<string, { pickup: Pickup; way: Mapping["pickup"]; set: number }>();
/** Whether a control was on when it last spoke. */
const on = new Map<string, boolean>();
const waiting = new Map<string, () => void>();
const acted = new Map<string, number>();

/** A message of a controller, at a moment of the browser's clock. */
export function fromController(device: string, bytes: ArrayLike<number>, at: number): void {
  const reader = readers.get(device) ?? new Reader();
  readers.set(device, reader);
  for (const said of reader.read(bytes)) {
    if (learningNow().on) learn(device, said);
    else for (const mapping of mappingsOf(device, said.control)) act(mapping, said, at);
  }
}

/** A controller is gone: what it held is let go. */
export function controllerGone(device: string): void {
  releaseAll(device);
  readers.delete(device);
}

const mappingsOf = (device: string, control: string): Mapping[] => {
  const { song: own, all } = mappingsNow();
  return [...own, ...all].filter((one) => one.device === device && one.control === control);
};

/** The control that moves is the one that is meant; of a pair the finer. */
function learn(device: string, { control, raw }: Said): void {
  const { control: before, raws, device: other } = learningNow();
  const finer = control.startsWith("cc14/") && before === control.replace("cc14/", "cc/");
  if (before && !finer && (before !== control || device !== other)) return;
  const list = finer || before !== control ? [raw] : [...raws, raw].slice(-8);
  setLearning({ device, control, raws: list, kind: kindOf(control, list) });
  const { target } = learningNow();
  clearTimeout(settling);
  if (target) settling = window.setTimeout(() => learnt({ address: target }), SETTLED_MS);
}

/** A control whose parameter is known is learnt once it rests for so long: then its kind is told. */
const SETTLED_MS = 350;
let settling = 0;

/** What the values of a control look like. */
export function kindOf(control: string, raws: number[]): Mapping["kind"] {
  if (control.startsWith("note/")) return "toggle";
  if (control === "cc/0/64") return "switch";
  if (!control.startsWith("cc/") || raws.length < TOLD_BY) return "absolute";
  const all = (test: (raw: number) => boolean) => raws.every(test);
  if (all((raw) => raw < 6 || raw > 121) && raws.some((raw) => raw > 121)) return "twos";
  if (all((raw) => (raw > 0 && raw < 6) || (raw > 64 && raw < 70))) return "sign";
  if (all((raw) => raw > 58 && raw < 70 && raw !== 64)) return "offset";
  return "absolute";
}

/** Acts at once, but for a flood, of which every so-manyth millisecond counts. */
function act(mapping: Mapping, said: Said, at: number): void {
  const key = `${mapping.device} ${mapping.control} ${JSON.stringify(mapping.target)}`;
  const pressed = said.value >= 0.5;
  const fresh = pressed && !on.get(key);
  on.set(key, pressed);
  if (mapping.target.deed) return fresh ? perform(mapping.target.deed) : undefined;
  const address = mapping.target.address ?? eightNow()[(mapping.target.slot ?? 1) - 1];
  if (!address || !known(address)) return;
  if (mapping.kind === "toggle") {
    if (fresh) turnBriefly(address, standsAt(address) < 0.5 ? 1 : 0, mapping.device, at);
    return;
  }
  if (mapping.kind === "twos" || mapping.kind === "sign" || mapping.kind === "offset")
    return step(address, stepsOf(mapping.kind, said.raw), mapping, at);
  inTurn(key, () => put(key, mapping, address, said.value, at));
}

function inTurn(key: string, what: () => void): void {
  const now = performance.now();
  const due = (acted.get(key) ?? 0) + APART_MS;
  if (now >= due && !waiting.has(key)) {
    acted.set(key, now);
    return what();
  }
  const first = !waiting.has(key);
  waiting.set(key, what);
  if (!first) return;
  setTimeout(() => {
    const last = waiting.get(key);
    waiting.delete(key);
    acted.set(key, performance.now());
    last?.();
  }, due - now);
}

function put(key: string, mapping: Mapping, address: string, value: number, at: number): void {
  const { low, high, kind, pickup: way } = mapping;
  const width = high - low;
  if (kind === "switch") return turnBriefly(address, value >= 0.5 ? high : low, mapping.device, at);
  const known = pickups.get(key);
  const one = known?.way === way ? known : { pickup: new Pickup(way), way, set: Number.NaN };
  pickups.set(key, one);
  const stands = standsAt(address);
  if (Math.abs(stands - one.set) > MOVED) one.pickup.lost();
  const comes = one.pickup.turn(value, width === 0 ? value : Math.min(Math.max((stands - low) / width, 0), 1));
  if (comes === null) return;
  one.set = low + width * comes;
  turnBriefly(address, one.set, mapping.device, at);
}

function step(address: string, steps: number, { low, high, device }: Mapping, at: number): void {
  const { catalogue, model } = song();
  const scale = catalogue && findParameter(catalogue, model, address)?.scale;
  const each = scale?.steps ? 1 / scale.steps : 1 / STEPS;
  const [least, most] = low < high ? [low, high] : [high, low];
  const goal = standsAt(address) + steps * each * (high < low ? -1 : 1);
  turnBriefly(address, Math.min(Math.max(goal, least), most), device, at);
}

function known(address: string): boolean {
  const { catalogue, model } = song();
  return catalogue !== null && findParameter(catalogue, model, address) !== null;
}

function perform(deed: NonNullable<Mapping["target"]["deed"]>): void {
  if (deed === "play") player.toggle();
  else if (deed === "record") void toggleRecording();
  else if (deed === "hand_back") void edit("hand_back", {});
  else turnPage(deed === "next_set" ? 1 : -1);
}
