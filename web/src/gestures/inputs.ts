import { player } from "../sound/player";
import { TEMPO } from "../state/catalogue";
import { lookup } from "../state/lookup";
import { playInNow, setPlayIn, setWays } from "../state/playIn";
import { song } from "../state/song";
import { transportNow } from "../state/transport";
import { controllerGone, fromController } from "./controllers";
import { feedBack, tellAgain } from "./feedback";
import { allOff, message } from "./playIn";

/** The id of the keyboard that ships with the app. */
export const SIMULATED = "simulated";
const NOTE_ON = 0x90;
const NOTE_OFF = 0x80;
/** Its phrase: steps above its lowest note, a beat each. */
const PHRASE = [0, 7, 12, 7, 3, 10, 15, 10];
const LOWEST = 48;

/** How the controller that ships with the app is called. */
export const SIMULATED_NAME = "simulated controller";
/** What is told of a moment that lies further off is not believed. */
const BELIEVED_MS = 1000;

/** A message of some input: notes of the one that plays are played, all else is what a controller says. */
function fromInput(id: string, name: string, bytes: ArrayLike<number>, told: number): void {
  const now = performance.now();
  const at = Math.abs(now - told) < BELIEVED_MS ? told : now;
  if (id === playInNow().input) message(Array.from(bytes), at);
  fromController(name, bytes, at);
}

/** A controller and keyboard without a body: it sends what a real one would, each message with its moment. */
class SimulatedKeyboard {
  private timers: number[] = [];

  /** Sends a message; `at` is a moment of the browser's clock, in milliseconds. */
  send(bytes: number[], at = performance.now()): void {
    fromInput(SIMULATED, SIMULATED_NAME, bytes, at);
  }

  /** Presses a key at a moment to come, and lets it go after some milliseconds. */
  press(pitch: number, at: number, milliseconds: number, velocity = 96): void {
    this.later([NOTE_ON, pitch, velocity], at);
    this.later([NOTE_OFF, pitch, 0], at + milliseconds);
  }

  /** Plays a phrase of two bars of 4/4, in time with the song from its next beat on. */
  phrase(): void {
    this.stop();
    const beats = player.nextBeats(PHRASE.length);
    PHRASE.forEach((step, i) => {
      this.press(LOWEST + step, beats[i].at, beats[i].milliseconds * 0.8);
    });
  }

  stop(): void {
    for (const timer of this.timers) clearTimeout(timer);
    this.timers = [];
    allOff();
  }

  private later(bytes: number[], at: number): void {
    this.timers.push(window.setTimeout(() => this.send(bytes, at), Math.max(0, at - performance.now())));
  }
}

export const simulatedKeyboard = new SimulatedKeyboard();

/** By which any script in the page plays it: an event of this name, with `bytes` and, if it is to be known, `at`. */
window.addEventListener("satchel-keyboard", ({ detail }: CustomEventInit<{ bytes: number[]; at?: number }>) => {
  if (detail) simulatedKeyboard.send(detail.bytes, detail.at);
});

let access: MIDIAccess | null = null;
const OURS = { id: SIMULATED, name: SIMULATED_NAME };

/** Asks the browser which keyboards there are; one that knows no MIDI has only ours. */
export async function readInputs(): Promise<void> {
  access ??= (await navigator.requestMIDIAccess?.().catch(() => null)) ?? null;
  if (access)
    access.onstatechange = ({ port }: MIDIConnectionEvent) => {
      if (port?.type === "input" && port.state === "disconnected") gone(port);
      tellAgain();
      list();
    };
  list();
  feed();
}

let stopFeedback = (): void => {};

/** Tells controllers where what they turn has come to; ours by an event of the page. */
function feed(): void {
  stopFeedback();
  stopFeedback = feedBack((device, bytes) => {
    if (device === SIMULATED_NAME)
      return void dispatchEvent(new CustomEvent("satchel-feedback", { detail: { bytes } }));
    for (const output of access?.outputs.values() ?? []) if (output.name === device) output.send(bytes);
  });
}

/** What was pulled out holds nothing any more. */
function gone({ id, name }: MIDIPort): void {
  if (id === playInNow().input) allOff();
  controllerGone(name ?? "a keyboard");
}

function list(): void {
  const found = [...(access?.inputs.values() ?? [])];
  setPlayIn({ inputs: [...found.map(({ id, name }) => ({ id, name: name ?? "a keyboard" })), OURS] });
  for (const input of found)
    input.onmidimessage = (event: MIDIMessageEvent) => {
      if (event.data) fromInput(input.id, input.name ?? "a keyboard", event.data, event.timeStamp);
    };
}

export function chooseInput(input: string): void {
  simulatedKeyboard.stop();
  setWays({ input });
}

/** The rows of the computer's keyboard, from the bottom; the sounds of a kit lie on them one after another. */
const ROWS = [
  ["KeyZ", "KeyX", "KeyC", "KeyV", "KeyB", "KeyN", "KeyM", "Comma", "Period", "Slash"],
  ["KeyA", "KeyS", "KeyD", "KeyF", "KeyG", "KeyH", "KeyJ", "KeyK", "KeyL", "Semicolon"],
  ["KeyQ", "KeyW", "KeyE", "KeyR", "KeyT", "KeyY", "KeyU", "KeyI", "KeyO", "KeyP"],
];
/** Two keyboards, an octave apart: each a row of white keys, and above it the black ones where they lie between. */
const KEYBOARDS = [
  { from: 0, white: ROWS[0], black: ["", "KeyS", "KeyD", "", "KeyG", "KeyH", "KeyJ", "", "KeyL", "Semicolon"] },
  {
    from: 12,
    white: ROWS[2],
    black: ["", "Digit2", "Digit3", "", "Digit5", "Digit6", "Digit7", "", "Digit9", "Digit0"],
  },
];
/** Steps of the white keys of an octave. */
const WHITE = [0, 2, 4, 5, 7, 9, 11];

const whiteStep = (place: number): number => Math.floor(place / WHITE.length) * 12 + WHITE[place % WHITE.length];

/** The step of each key above the lowest that is shown. A black key lies right below the white one on its right. */
const STEPS = new Map(
  KEYBOARDS.flatMap(({ from, white, black }) => [
    ...white.map((code, place): [string, number] => [code, from + whiteStep(place)]),
    ...black.map((code, place): [string, number] => [code, from + whiteStep(place) - 1]),
  ]).filter(([code]) => code !== ""),
);

/** Which of the keys shown a key of the computer plays: steps above the lowest; of a kit, row after row. */
export function typedStep(code: string, kit: boolean): number | null {
  if (!kit) return STEPS.get(code) ?? null;
  const place = ROWS.flat().indexOf(code);
  return place >= 0 ? place : null;
}

const SIGNS: Record<string, string> = { Comma: ",", Period: ".", Slash: "/", Semicolon: ";" };

/** The letters that play a step, to be written on its key. */
export const lettersOf = (step: number, kit: boolean): string =>
  [...(kit ? ROWS.flat() : STEPS.keys())]
    .filter((code) => typedStep(code, kit) === step)
    .map((code) => SIGNS[code] ?? code.replace(/^(Key|Digit)/, ""))
    .join(" ");

const TAPS = 8;
const PAUSE_MS = 2000;
let taps: number[] = [];

/** One tap of a tempo; the tempo of the last taps, once there are three. */
export function tapped(at = performance.now()): number | null {
  if (taps.length > 0 && at - taps[taps.length - 1] > PAUSE_MS) taps = [];
  taps = [...taps, at].slice(-TAPS);
  if (taps.length < 3) return null;
  const beat = (taps[taps.length - 1] - taps[0]) / (taps.length - 1);
  return Math.min(Math.max(Math.round(60_000 / beat), 10), 400);
}

/** The tempo that holds at the playhead: where it was set. */
export function tempoTick(): number {
  const { playhead } = transportNow();
  const lane = (lookup(song().model).targets[TEMPO] ?? []).find(({ owner }) => owner.startsWith("track/"));
  return lane?.points.filter(({ tick }) => tick <= playhead).at(-1)?.tick ?? 0;
}
