import { create } from "zustand";
import { moves as api } from "../api/client";
import type { EditInputs, KeptMove, SatchelEntry, Ticks } from "../api/types";
import { choiceNow, stretchNow } from "./choosing";
import { setNotice, tell } from "./notice";
import { api as songApi } from "./questions";
import { faultsSaid, type Say } from "./queue";
import { song } from "./song";
import { setView, viewNow } from "./view";

/** How a move is dropped. */
export interface DropWays {
  how: NonNullable<EditInputs["drop_move"]["how"]>;
  over: boolean;
  backwards: boolean;
  /** As people write them, in the unit of what it comes to; empty where it ran. */
  low: string;
  high: string;
  /** Null for the one it was made in. */
  role: KeptMove["role"] | null;
}

interface Satchel {
  /** Null until it was asked for. */
  list: SatchelEntry[] | null;
  /** The move in hand. */
  id: number | null;
  words: string;
  tag: string | null;
  /** Ids in order of likeness to a shape; null while nothing is looked for. */
  near: number[] | null;
  ways: DropWays;
}

const PLAIN: DropWays = { how: "fit", over: false, backwards: false, low: "", high: "", role: null };

export const useSatchel = create<Satchel>(() => ({
  list: null,
  id: null,
  words: "",
  tag: null,
  near: null,
  ways: PLAIN,
}));
export const satchelNow = useSatchel.getState;
export const setSatchel = useSatchel.setState;

export async function readSatchel(): Promise<void> {
  const list = await faultsSaid(() => api.list());
  if (list) setSatchel({ list });
}

/** The stretch of the envelope at hand that would be kept: the chosen one, or all of it. */
export function keepable(): { envelopeId: string; from: Ticks; to: Ticks; part: boolean } | null {
  const choice = choiceNow();
  if (!choice) return null;
  const { envelope } = choice;
  const stretch = stretchNow();
  if (stretch) return { envelopeId: envelope.id, from: stretch[0], to: stretch[1], part: true };
  const clip = song().model.clips[envelope.owner.slice("clip/".length)];
  const last = envelope.points[envelope.points.length - 1]?.tick ?? 0;
  const own = envelope.own_length_ticks ?? clip?.length_ticks ?? last;
  return own > 0 ? { envelopeId: envelope.id, from: 0, to: own, part: false } : null;
}

/** Opens the satchel where the envelope at hand is kept. */
export function showKeeping(): void {
  setView({ sheet: "satchel", panelOpen: true, folds: { ...viewNow().folds, "satchel-keep": true } });
}

const named = (name: string, tags: string): { name: string; tags: string[] } => ({
  name: name.trim(),
  tags: [...new Set(tags.split(/[\s,]+/).filter(Boolean))],
});

/** Keeps what is at hand under a name. */
export async function keepMove(name: string, tags: string, say?: Say): Promise<SatchelEntry | null> {
  const what = keepable();
  if (!what) {
    (say ?? ((words) => tell("fault", words)))("Choose an envelope first: press its line.");
    return null;
  }
  const move = await faultsSaid(() => songApi().keptMove(what.envelopeId, what.from, what.to, name), say);
  const entry = move && (await faultsSaid(() => api.keep({ ...move, ...named(name, tags) }), say));
  if (!entry) return null;
  await readSatchel();
  setSatchel({ id: entry.id, words: "", tag: null, near: null });
  tell("done", `${entry.move.name} is in the satchel`);
  return entry;
}

export async function renameMove(entry: SatchelEntry, name: string, tags: string, say?: Say): Promise<void> {
  const next = named(name, tags);
  if (await faultsSaid(() => api.rename(entry.id, next.name, next.tags), say)) await readSatchel();
}

/** Lets a move go; it can be put back at once. */
export async function removeMove(entry: SatchelEntry): Promise<void> {
  const gone = await faultsSaid(() => api.remove(entry.id));
  if (!gone) return;
  setSatchel({ id: null });
  await readSatchel();
  const back = async () => {
    const entry = await faultsSaid(() => api.keep(gone.move));
    if (entry) await readSatchel().then(() => setSatchel({ id: entry.id }));
  };
  setNotice({ notice: { tone: "done", words: `${gone.move.name} is no longer in the satchel`, back } });
}

/** Puts the moves most like a shape first. */
export async function findLike(move: KeptMove): Promise<void> {
  const found = await faultsSaid(() => api.near(move));
  if (found) setSatchel({ near: found.ids, words: "", tag: null });
}

/** Takes the moves of a file in. */
export async function takeMoves(file: File): Promise<void> {
  const say = (words: string) => tell("fault", `${file.name}: ${words}`);
  let data: unknown;
  try {
    data = JSON.parse(await file.text());
  } catch {
    return say("This is no file of moves.");
  }
  const taken = await faultsSaid(() => api.take(data), say);
  if (!taken) return;
  await readSatchel();
  const words = taken.length === 1 ? "1 move is new" : `${taken.length} moves are new`;
  tell("done", `${file.name}: ${words} in the satchel`);
}

/** What is looked for, in order. */
export function found({ list, words, tag, near }: Satchel): SatchelEntry[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const fits = ({ move }: SatchelEntry) => {
    const text = `${move.name} ${move.tags.join(" ")}`.toLowerCase();
    return wanted.every((word) => text.includes(word)) && (tag === null || move.tags.includes(tag));
  };
  const fitting = (list ?? []).filter(fits);
  if (!near) return fitting;
  const place = new Map(near.map((id, i) => [id, i]));
  return [...fitting].sort((a, b) => (place.get(a.id) ?? near.length) - (place.get(b.id) ?? near.length));
}

/** What moves are for: the first tag of each that ships, and those of one's own. */
export const usesOf = (list: SatchelEntry[]): string[] => [
  ...new Set(list.flatMap(({ move, shipped }) => (shipped ? move.tags.slice(0, 1) : []))),
];

/** How the move in hand is dropped, as the edit says it. */
export function waysGiven({ how, over, backwards, low, high, role }: DropWays) {
  return {
    how,
    ...(over ? { over } : {}),
    ...(backwards ? { backwards } : {}),
    ...(low.trim() ? { low: low.trim() } : {}),
    ...(high.trim() ? { high: high.trim() } : {}),
    ...(role ? { role } : {}),
  };
}
