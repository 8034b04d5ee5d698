import { songApi } from "../api/client";
import { onceBack } from "../api/connection";
import type { Change, TrackDrawing } from "../api/types";
import { targetsOn } from "./catalogue";
import { focusOf } from "./focus";
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
  try {
    while (undrawn.length > 0) await drawWaiting();
  } catch {
    const missing = undrawn;
    undrawn = [];
    onceBack(() => forgetDrawn(missing));
  }
}

/** Rows in view ask again for what is forgotten. */
const forgetDrawn = (trackIds: string[]): void =>
  setSong(({ drawn }) => ({
    drawn: Object.fromEntries(Object.entries(drawn).filter(([id]) => !trackIds.includes(id))),
  }));

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

/** How many drawings in a row were not of the song as it stands here. */
let misses = 0;
const SOME_MISSES = 3;
const LONGEST_WAIT_MS = 5000;

/** A page that hears of no changes any more does not ask on and on without a pause. */
const pause = (): Promise<void> =>
  new Promise((done) => setTimeout(done, misses < SOME_MISSES ? 0 : Math.min(100 * 2 ** misses, LONGEST_WAIT_MS)));

async function drawWaiting(): Promise<void> {
  const wanted = undrawn.slice(0, DRAWN_AT_ONCE);
  const { songId } = song();
  const drawing = await api().drawing(wanted);
  undrawn = undrawn.filter((id) => !wanted.includes(id));
  if (song().songId !== songId) return;
  if (stillTrue(drawing)) {
    misses = 0;
    return setSong((state) => ({ ...merged(state, drawing), model: applyParts(state.model, drawing.parts) }));
  }
  misses += 1;
  await pause();
  forgetDrawn(wanted);
}

/** Addresses whose heard bands are being asked for; those of one moment go in one request. */
const asking = new Set<string>();
let unheard: string[] = [];

/** Asks for the heard bands that are not known yet. */
export function drawHeard(addresses: string[]): void {
  const missing = addresses.filter((address) => !song().heard[address] && !asking.has(address));
  for (const address of missing) asking.add(address);
  if (missing.length > 0 && unheard.length === 0) queueMicrotask(() => void hearWaiting());
  unheard.push(...missing);
}

async function hearWaiting(): Promise<void> {
  const wanted = unheard;
  unheard = [];
  const { songId, revision, resting } = song();
  const found = await api()
    .heard(wanted)
    .catch(() => null);
  for (const address of wanted) asking.delete(address);
  if (song().songId !== songId) return;
  if (!found) return onceBack(() => drawHeard(wanted));
  if (song().revision !== revision || song().resting !== resting) return drawHeard(wanted);
  setSong((state) => ({
    heard: { ...state.heard, ...found.heard },
    conflicts: { ...state.conflicts, ...found.conflicts },
  }));
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

/** Addresses whose heard value is on screen: what unfolded tracks show, and the knobs of the track at hand. */
export function heardInView(): string[] {
  const view = viewNow();
  const focused = view.unfolded.flatMap((id) => focusOf(id) ?? []);
  return [...new Set([...focused, ...targetsOn(song().model, view.trackId ?? "")])];
}
