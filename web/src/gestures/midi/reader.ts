/**
 * What MIDI messages of a controller say (MIDI 1.0). Controls are named `cc/CHANNEL/NUMBER`, `cc14/CHANNEL/NUMBER` (a
 * pair of controllers 0..31 and 32..63), `note/CHANNEL/KEY`, `key-pressure/CHANNEL/KEY`, `pressure/CHANNEL`,
 * `bend/CHANNEL`; channels are counted from 0.
 */
export interface Said {
  control: string;
  /** 0..1. */
  value: number;
  /** The data byte itself, of a pair both in one; by which steps of an encoder are told. */
  raw: number;
}

const NOTE_OFF = 0x80;
const NOTE_ON = 0x90;
const KEY_PRESSURE = 0xa0;
const CONTROLLER = 0xb0;
const PRESSURE = 0xd0;
const BEND = 0xe0;
/** The centre of the pitch wheel. */
const CENTRE = 8192;
const MOST_14 = 16383;
/** Controllers below this have a fine half, so many above. */
const PAIRS = 32;

const isData = (byte: number | undefined): byte is number =>
  byte !== undefined && Number.isInteger(byte) && byte >= 0 && byte < 128;

/** Reads the messages of one controller, one after the other: pairs of controllers come in two. */
export class Reader {
  /** The coarse half of each pair, as it came last. */
  private coarse = new Map<string, number>();

  /** What a message says; nothing for a broken one. */
  read(bytes: ArrayLike<number>): Said[] {
    const [status, one, two] = [bytes[0], bytes[1], bytes[2]];
    if (!Number.isInteger(status) || status < NOTE_OFF || status > 0xef || !isData(one)) return [];
    const [kind, channel] = [status & 0xf0, status & 0x0f];
    if (kind === PRESSURE) return [{ control: `pressure/${channel}`, value: one / 127, raw: one }];
    if (!isData(two)) return [];
    if (kind === NOTE_ON || kind === NOTE_OFF) {
      const velocity = kind === NOTE_ON ? two : 0;
      return [{ control: `note/${channel}/${one}`, value: velocity / 127, raw: velocity }];
    }
    if (kind === KEY_PRESSURE) return [{ control: `key-pressure/${channel}/${one}`, value: two / 127, raw: two }];
    if (kind === BEND) return [{ control: `bend/${channel}`, value: bent((two << 7) | one), raw: (two << 7) | one }];
    return kind === CONTROLLER ? this.controller(channel, one, two) : [];
  }

  private controller(channel: number, number: number, value: number): Said[] {
    const plain = { control: `cc/${channel}/${number}`, value: value / 127, raw: value };
    if (number < PAIRS) {
      this.coarse.set(`${channel}/${number}`, value);
      return [plain];
    }
    const coarse = number < 2 * PAIRS ? this.coarse.get(`${channel}/${number - PAIRS}`) : undefined;
    if (coarse === undefined) return [plain];
    const both = (coarse << 7) | value;
    return [plain, { control: `cc14/${channel}/${number - PAIRS}`, value: both / MOST_14, raw: both }];
  }
}

/** The centre is exactly half way, the ends are the ends. */
const bent = (raw: number): number =>
  raw <= CENTRE ? raw / (2 * CENTRE) : 0.5 + (raw - CENTRE) / (2 * (MOST_14 - CENTRE));

/** How the values of an encoder without ends mean steps. */
export type Steps = "twos" | "sign" | "offset";

/** Steps up (above 0) or down that a value of an encoder means: in two's complement, with a sign bit, or about 64. */
export function stepsOf(kind: Steps, raw: number): number {
  if (kind === "twos") return raw < 64 ? raw : raw - 128;
  if (kind === "sign") return raw < 64 ? raw : 64 - raw;
  return raw - 64;
}

/** A control in words. */
export function controlWords(control: string): string {
  const [kind, channel, number] = control.split("/");
  const names: Record<string, string> = {
    "1": "mod wheel",
    "4": "foot pedal",
    "11": "expression pedal",
    "64": "sustain pedal",
  };
  const on = Number(channel) > 0 ? `, channel ${Number(channel) + 1}` : "";
  if (kind === "cc") return `${names[number] ?? `controller ${number}`}${on}`;
  if (kind === "cc14") return `${names[number] ?? `controller ${number}`}, fine${on}`;
  if (kind === "note") return `key ${number}${on}`;
  if (kind === "key-pressure") return `pressure of key ${number}${on}`;
  return `${kind === "bend" ? "pitch wheel" : "pressure"}${on}`;
}
