import { catalogue, songApi } from "../api/client";
import type { Snapshot, Ticks } from "../api/types";
import { trackOf } from "./catalogue";
import { resetChoice } from "./choice";
import { follows } from "./followers";
import { resetHand } from "./hand";
import { keptView } from "./keptView";
import type { Model } from "./model";
import { setNotice, tell } from "./notice";
import { resetSong, setSong, song } from "./song";
import { whole } from "./taking";
import { resetTransport, setTransport } from "./transport";
import { FRESH_VIEW, type KeptView, resetView, setView } from "./view";
import { setWishes } from "./wishes";

/** Opens a song: its parts first, drawings as rows come into view. */
export async function openSong(id: number): Promise<void> {
  for (const reset of [resetSong, resetView, resetChoice, resetHand, resetTransport]) reset();
  setNotice({ notice: null });
  const [snapshot, known] = await Promise.all([songApi(id).opening(), song().catalogue ?? catalogue()]);
  const { model, ...rest } = whole(snapshot);
  const kept = keptView(id);
  const { view, playhead } = kept ?? firstView(model);
  if (!kept) setWishes({ rows: true });
  const there = model.tracks.some((track) => track.id === view.trackId);
  setTransport({ playhead });
  setView({ ...view, trackId: there ? view.trackId : (model.tracks[0]?.id ?? null) });
  setSong({ songId: id, catalogue: known, model, ...rest });
  if (snapshot.places.length > 0) tellPlaces(snapshot);
  follows().opened(id);
  void tellMissing(id);
}

/** How many places a notice names. */
const MOST_PLACES = 3;

/** Says once what sounds different since a song of an older form was brought up. */
function tellPlaces({ id, places }: Snapshot): void {
  const named = places.slice(0, MOST_PLACES).map(({ text }) => text);
  const more = places.length > named.length ? ` and ${places.length - named.length} more` : "";
  const rule = "This song comes from an older version. One value is set now, then scaled, then shifted";
  tell("done", `${rule}: ${named.join("; ")}${more} sound different.`);
  songApi(id)
    .placesSeen()
    .catch(() => undefined);
}

/** Says which sounds are not here; all else plays. */
async function tellMissing(id: number): Promise<void> {
  const missing = await songApi(id)
    .missing()
    .catch(() => []);
  if (missing.length === 0 || song().songId !== id) return;
  const users = [...new Set(missing.flatMap(({ clips }) => clips))];
  const more = users.length > MOST_PLACES ? ` and ${users.length - MOST_PLACES} more` : "";
  const who = users.length > 0 ? `${users.slice(0, MOST_PLACES).join(", ")}${more}` : "samplers";
  const sounds = missing.length === 1 ? "A sound is" : `${missing.length} sounds are`;
  tell("fault", `${sounds} missing here, so ${who} will be silent. Import the packed song, or drop the sounds in.`);
}

/** Room left of where a view starts, so that points there can be taken hold of. */
const MARGIN = 14;

/** On a first visit: the range in view, and the track unfolded where a clip and a lane meet on one parameter. */
function firstView(model: Model): { view: KeptView; playhead: Ticks } {
  const all = Object.values(model.envelopes);
  const inClip = new Set(
    all.filter((envelope) => envelope.owner.startsWith("clip/")).map((envelope) => envelope.target),
  );
  const met = all.find((envelope) => envelope.owner.startsWith("track/") && inClip.has(envelope.target));
  const start = model.head.range.start_tick;
  const scrollTick = Math.max(0, start - MARGIN / FRESH_VIEW.pxPerTick);
  if (!met) return { view: { ...FRESH_VIEW, scrollTick }, playhead: start };
  const trackId = trackOf(model, met.target);
  return {
    view: { ...FRESH_VIEW, trackId, unfolded: [trackId], focus: { [trackId]: met.target }, scrollTick },
    playhead: start,
  };
}
