import { songApi } from "../api/client";
import type { Change, TrackDrawing } from "../api/types";
import { lookup } from "./lookup";
import { applyParts } from "./model";
import { type SongState, setSong, song } from "./song";
import { viewNow } from "./view";

const api = () => songApi(song().songId as number);

/** Tracks that wait to be asked for, all in one request. */
let undrawn: string[] = [];

/** Asks for what a track shows, once. */
export function drawTrack(trackId: string): void {
  if (song().drawn[trackId]) return;
  setSong(({ drawn }) => ({ drawn: { ...drawn, [trackId]: true } }));
  if (undrawn.push(trackId) === 1) queueMicrotask(() => void drawAllWaiting());
}

/** A few tracks to a request, so that the first rows are there soon. */
const DRAWN_AT_ONCE = 6;

async function drawAllWaiting(): Promise<void> {
  while (undrawn.length > 0) await drawWaiting();
}

/** What the last changes touched, by revision: a drawing that was asked for before them may still be true. */
let changes: { revision: number; touched: Set<string> }[] = [];
const MOST_CHANGES = 100;

export function remember({ revision, parts }: Pick<Change, "revision" | "parts">): void {
  changes = [
    ...changes.slice(-MOST_CHANGES),
    { revision, touched: new Set(parts.map(([kind, id]) => `${kind}/${id}`)) },
  ];
}

/** Whether nothing a drawing holds has changed since it was made. */
function stillTrue({ revision, parts, windows }: TrackDrawing): boolean {
  const since = changes.filter((change) => change.revision > revision);
  if (revision + since.length !== song().revision) return false;
  const held = [...parts.map(([kind, id]) => `${kind}/${id}`), ...Object.keys(windows).map((id) => `region/${id}`)];
  return since.every(({ touched }) => held.every((key) => !touched.has(key)));
}

async function drawWaiting(): Promise<void> {
  const wanted = undrawn.slice(0, DRAWN_AT_ONCE);
  const { songId } = song();
  const drawing = await api().drawing(wanted);
  undrawn = undrawn.filter((id) => !wanted.includes(id));
  if (song().songId !== songId) return;
  if (stillTrue(drawing))
    return setSong((state) => ({ ...merged(state, drawing), model: applyParts(state.model, drawing.parts) }));
  setSong(({ drawn }) => ({ drawn: Object.fromEntries(Object.entries(drawn).filter(([id]) => !wanted.includes(id))) }));
}

export async function drawHeard(addresses: string[]): Promise<void> {
  const missing = addresses.filter((address) => !song().heard[address]);
  if (missing.length === 0) return;
  const { heard, conflicts } = await api().heard(missing);
  setSong((state) => ({ heard: { ...state.heard, ...heard }, conflicts: { ...state.conflicts, ...conflicts } }));
}

type Drawn = Pick<SongState, "curves" | "windows" | "passes" | "marks" | "uneven" | "meetings">;
/** Drawings laid over those that are there. */
export const merged = (state: SongState, more: Drawn): Drawn => ({
  curves: { ...state.curves, ...more.curves },
  windows: { ...state.windows, ...more.windows },
  passes: { ...state.passes, ...more.passes },
  marks: { ...state.marks, ...more.marks },
  uneven: { ...state.uneven, ...more.uneven },
  meetings: { ...state.meetings, ...more.meetings },
});

/** Addresses whose heard value is on screen. */
export function heardInView(): string[] {
  const view = viewNow();
  const known = lookup(song().model);
  const focused = view.unfolded.flatMap((id) => view.focus[id] ?? []);
  const onTrack = Object.keys(known.targets).filter((target) => target.startsWith(`${view.trackId}/`));
  return [...new Set([...focused, ...onTrack])];
}
