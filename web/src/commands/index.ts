import { findParameter } from "../state/catalogue";
import type { KEYS, KeyId } from "../state/keyMap";
import type { Kind, Subject } from "../state/menu";
import { song } from "../state/song";
import { BAR_COMMANDS, barsInWords } from "./bars";
import type { Command } from "./command";
import { deviceCommands } from "./devices";
import { envelopeCommands } from "./envelopes";
import { knobCommands } from "./knobs";
import { markerCommands } from "./markers";
import { NOTE_COMMANDS } from "./notes";
import { POINT_COMMANDS } from "./points";
import { REGION_COMMANDS } from "./regions";
import { PLAYING_COMMANDS, SHOWING_WORDS, STUDIO_COMMANDS, TOOL_COMMANDS, VIEW_COMMANDS, WAY_COMMANDS } from "./studio";
import { trackCommands } from "./tracks";

export {
  BAR_COMMANDS,
  NOTE_COMMANDS,
  PLAYING_COMMANDS,
  POINT_COMMANDS,
  REGION_COMMANDS,
  SHOWING_WORDS,
  STUDIO_COMMANDS,
  TOOL_COMMANDS,
  VIEW_COMMANDS,
  WAY_COMMANDS,
};

/** What can be done to something, as it stands now. */
export function commandsOf(subject: Subject): Command[] {
  switch (subject.kind) {
    case "studio":
      return STUDIO_COMMANDS;
    case "bars":
      return BAR_COMMANDS;
    case "regions":
      return REGION_COMMANDS;
    case "points":
      return POINT_COMMANDS;
    case "notes":
      return NOTE_COMMANDS;
    case "envelope":
      return envelopeCommands(subject.envelopeId);
    case "knob":
      return knobCommands(subject.address);
    case "device":
      return deviceCommands(subject.chain, subject.deviceId);
    case "track":
      return trackCommands(subject.trackId);
    case "marker":
      return markerCommands(subject.markerId);
  }
}

/** What a list of commands is about, in general. */
export const KIND_WORDS: Record<Kind, string> = {
  studio: "The studio",
  bars: "Bars of the song",
  regions: "The chosen regions",
  points: "The chosen points or span",
  notes: "The chosen notes",
  envelope: "The envelope",
  knob: "The knob",
  device: "The device",
  track: "The track",
  marker: "The marker",
};

/** What a list of commands is about, by its name. */
export function headOf(subject: Subject): string {
  const { model, catalogue } = song();
  const knob = (address: string) => (catalogue && findParameter(catalogue, model, address)?.entry.name) ?? address;
  switch (subject.kind) {
    case "bars":
      return barsInWords();
    case "track":
      return model.tracks.find(({ id }) => id === subject.trackId)?.name ?? KIND_WORDS.track;
    case "knob":
      return knob(subject.address);
    case "envelope":
      return knob(model.envelopes[subject.envelopeId]?.target ?? "");
    case "marker":
      return model.head.markers?.find(({ id }) => id === subject.markerId)?.name ?? KIND_WORDS.marker;
    default:
      return KIND_WORDS[subject.kind];
  }
}

/** The lists that the keyboard reaches without pointing at anything, and what each acts on. */
export const KEYED: [words: string, of: keyof typeof KEYS | "notes" | "bars", list: Command[]][] = [
  ["Tools", "studio", TOOL_COMMANDS],
  ["Playing", "studio", PLAYING_COMMANDS],
  ["View", "studio", VIEW_COMMANDS],
  ["Points and spans", "points", POINT_COMMANDS],
  ["Regions", "regions", REGION_COMMANDS],
  ["Notes", "notes", NOTE_COMMANDS],
  ["Bars", "bars", BAR_COMMANDS],
];

const BY_KEY = new Map(
  KEYED.flatMap(([, , list]) => list).flatMap((one) => (one.key ? [[one.key, one] as const] : [])),
);

/** The command of a key that can be changed; one without is a mistake of ours. */
export function byKey(key: KeyId): Command {
  const found = BY_KEY.get(key);
  if (!found) throw new Error(`No command has the key of ${key}.`);
  return found;
}

/** Chosen notes, points, bars and regions are meant in this order by a key that all of them have. */
const HELD = [NOTE_COMMANDS, POINT_COMMANDS, BAR_COMMANDS, REGION_COMMANDS];

/** The command that a key held with Ctrl means just now: of what is chosen or was copied. */
export const byHeld = (held: string): Command | undefined =>
  HELD.flat().find((command) => command.held === held && command.why() === null);

/** A command by its name; a name that is none is a mistake of ours. */
export function named(list: Command[], id: string): Command {
  const found = list.find((command) => command.id === id);
  if (!found) throw new Error(`There is no command ${id}.`);
  return found;
}

/** What hands do with keys besides: what has no command of its own. */
export const EVERYWHERE: [string, string][] = [
  ["Page up, Page down", "a bar back, a bar on"],
  ["Arrows", "move what is chosen by the grid, a hundredth or a bar; points and regions with Shift finely"],
  ["Ctrl and arrows", "chosen notes: louder, softer, longer, shorter; with Shift finely"],
  ["F6", "to the next area: top bar, song, panel, foot; with Shift to the one before"],
  ["Escape", "drop a drag; let go of what is chosen"],
  ["Ctrl Z, Ctrl Y", "undo, redo"],
  ["in a drag: Shift, Alt, Ctrl", "finely, off the grid, leave a copy; on a line: take the whole segment"],
];
