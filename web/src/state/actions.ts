import { Refused, type Wants, catalogue, songApi } from "../api/client";
import type { Change, Changed, EditInputs, News, Snapshot, Snippet, SongStretch, Ticks } from "../api/types";
import { putTogether } from "../geometry/corners";
import { player } from "../sound/player";
import { heardInView, merged, remember } from "./drawing";
import { EMPTY, type Model, applyParts, trackOf } from "./model";
import { FRESH_VIEW, type View, chooseRegions, loadView, resetSong, setSong, setView, song, tell } from "./store";

export const api = () => songApi(song().songId as number);

/** Opens a song: its parts first, drawings as rows come into view. */
export async function openSong(id: number): Promise<void> {
  resetSong();
  const [snapshot, known] = await Promise.all([songApi(id).snapshot(), song().catalogue ?? catalogue()]);
  const model = applyParts(EMPTY, snapshot.parts);
  const { view, playhead } = loadView(id) ?? firstView(model);
  const trackId = model.tracks.some((track) => track.id === view.trackId) ? view.trackId : (model.tracks[0]?.id ?? null);
  setSong({ songId: id, catalogue: known, model, revision: snapshot.revision, undo: snapshot.undo, redo: snapshot.redo, silent: snapshot.silent, view: { ...view, trackId }, playhead });
  if (snapshot.places.length > 0) tellPlaces(snapshot);
  void player.open(id);
}

/** How many places a notice names. */
const MOST_PLACES = 3;

/** Says once what sounds different since a song of an older form was brought up. */
function tellPlaces({ id, places }: Snapshot): void {
  const named = places.slice(0, MOST_PLACES).map(({ text }) => text);
  const more = places.length > named.length ? ` and ${places.length - named.length} more` : "";
  tell("done", `This song comes from an older version. One value is set now, then scaled, then shifted: ${named.join("; ")}${more} sound different.`);
  void songApi(id).placesSeen();
}

/** Room left of where a view starts, so that points there can be taken hold of. */
const MARGIN = 14;

/** On a first visit: the range in view, and the track unfolded where a clip and a lane meet on one parameter. */
function firstView(model: Model): { view: View; playhead: number } {
  const all = Object.values(model.envelopes);
  const inClip = new Set(all.filter((envelope) => envelope.owner.startsWith("clip/")).map((envelope) => envelope.target));
  const met = all.find((envelope) => envelope.owner.startsWith("track/") && inClip.has(envelope.target));
  const start = model.head.range.start_tick;
  const scrollTick = Math.max(0, start - MARGIN / FRESH_VIEW.pxPerTick);
  if (!met) return { view: { ...FRESH_VIEW, scrollTick }, playhead: start };
  const trackId = trackOf(met.target);
  return { view: { ...FRESH_VIEW, trackId, unfolded: [trackId], focus: { [trackId]: met.target }, scrollTick }, playhead: start };
}

/** Takes the newest state of the song after another tab changed it. */
export async function catchUp(): Promise<void> {
  const snapshot = await api().snapshot();
  const model = applyParts(EMPTY, snapshot.parts);
  setSong({ model, revision: snapshot.revision, undo: snapshot.undo, redo: snapshot.redo, silent: snapshot.silent, drawn: {}, heard: {}, preview: null });
  await player.songChanged();
}

/** Takes what another tab did, as the server tells it; fetches the song again only where that is not told, or a change was missed. */
export function follow({ revision, undo, redo, change }: News): Promise<void> {
  return inTurn(async () => {
    if (revision <= song().revision) return;
    if (!change || revision !== song().revision + 1 || change.clock_from !== null) return catchUp();
    remember({ ...change, revision });
    setSong((state) => ({
      ...merged(state, change),
      model: applyParts(state.model, change.parts),
      heard: Object.fromEntries(Object.entries(state.heard).filter(([address]) => !(address in change.touched))),
      silent: change.silent,
      revision,
      undo,
      redo,
      preview: null,
    }));
    dropLostChoice();
    await player.songChanged();
  });
}

export const wants = (): Wants => ({ heard: heardInView(), sound: player.stretchInPlay() });

function take(change: Change): void {
  remember(change);
  setSong((state) => ({
    ...merged(state, change),
    model: applyParts(state.model, change.parts),
    heard: { ...state.heard, ...change.heard, ...putTogether(state.heard, change.patches?.heard ?? {}) },
    conflicts: { ...state.conflicts, ...change.conflicts },
    silent: change.silent,
    revision: change.revision,
    undo: change.undo,
    redo: change.redo,
    preview: null,
  }));
  dropLostChoice();
  forgetStaleHeard(change);
  player.take(change);
}

/** Points and regions that are no longer there are no longer chosen; nor is a track that was taken away. */
function dropLostChoice(): void {
  const { envelopeId, chosen, model, regionIds, view } = song();
  const left = regionIds.filter((id) => model.regions[id]);
  if (left.length < regionIds.length) chooseRegions(left);
  if (!model.tracks.some((track) => track.id === view.trackId)) setView({ trackId: model.tracks[0]?.id ?? null });
  const count = (envelopeId && model.envelopes[envelopeId]?.points.length) || 0;
  if (chosen.some((index) => index >= count)) setSong({ chosen: chosen.filter((index) => index < count) });
}

/** Heard bands that are not in view were not sent; they are asked for anew when they come into view. */
function forgetStaleHeard(change: Changed): void {
  const inView = new Set(heardInView());
  setSong(({ heard }) => ({ heard: Object.fromEntries(Object.entries(heard).filter(([address]) => inView.has(address) || address in change.heard || address in (change.patches?.heard ?? {}))) }));
}

/** One change at a time, in order, so that each is made on the revision before it. */
let queue: Promise<unknown> = Promise.resolve();
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const next = queue.then(work, work);
  queue = next.catch(() => undefined);
  return next;
}

/** A place where a fault may be said, instead of in the notice for all. */
type Say = (message: string) => void;

async function faultsSaid<T>(work: () => Promise<T>, say: Say = (message) => tell("fault", message)): Promise<T | null> {
  try {
    return await work();
  } catch (error) {
    setSong({ preview: null });
    if (!(error instanceof Refused)) throw error;
    if (error.status === 409) await catchUp();
    say(error.status === 409 ? "Another tab had changed the song. Here is its newest state; please try again." : error.message);
    return null;
  }
}

/** Makes an edit; inputs given as a function are asked for at its turn. Null when it was refused; the reason is said, in the notice or where `say` puts it. */
export const edit = <K extends keyof EditInputs>(name: K, inputs: EditInputs[K] | (() => EditInputs[K]), say?: Say): Promise<Change | null> =>
  inTurn(() =>
    faultsSaid(async () => {
      const change = await api().edit(song().revision, name, typeof inputs === "function" ? inputs() : inputs, wants());
      take(change);
      return change;
    }, say),
  );

/** Makes an edit and says what was done, with what came with it and the way back. */
export const editAndTell = async <K extends keyof EditInputs>(name: K, inputs: EditInputs[K], say?: Say): Promise<Change | null> => {
  const change = await edit(name, inputs, say);
  if (change) tell("done", [`Done: ${change.words}`, ...change.tells.map(({ text }) => text)].join("; "), true);
  return change;
};

/** Says first that shared clips will be made separate, or that what is heard will change, where that is so; goes on once that is agreed to. */
export async function editAsking<K extends keyof EditInputs>(name: K, inputs: EditInputs[K]): Promise<void> {
  const trial = await faultsSaid(() => api().preview(song().revision, name, inputs, { heard: [] }));
  if (!trial) return;
  const apart = trial.tells.filter(({ code }) => code === "separated" || code === "difference").map(({ text }) => text);
  if (apart.length === 0) return void (await editAndTell(name, inputs));
  setSong({ notice: { tone: "done", words: `${apart.join("; ")}.`, go: () => void editAndTell(name, inputs) } });
}

/** A stretch of the whole song by itself. Null when there is none; the reason is said. */
export const songStretchOf = (from: Ticks, to: Ticks): Promise<SongStretch | null> => faultsSaid(() => api().songStretch(from, to));

/** The tick a written position names. Null when it names none; the reason is said. */
export const tickOf = async (text: string, say: Say): Promise<Ticks | null> => (await faultsSaid(() => api().position(text), say))?.tick ?? null;

/** A stretch of an envelope as a move by itself. Null when there is none; the reason is said. */
export const snippetOf = (envelopeId: string, from: Ticks, to: Ticks): Promise<Snippet | null> => faultsSaid(() => api().snippet(envelopeId, from, to));

export const step = (word: "undo" | "redo"): Promise<void> =>
  inTurn(async () => {
    if (!song()[word]) return;
    const change = await faultsSaid(() => api().step(word, song().revision, wants()));
    if (!change) return;
    take(change);
    tell("done", `${word === "undo" ? "Undone" : "Done again"}: ${change.words}`);
  });
