import { HandsSocket, type Said, type SurfaceDeed, type SurfaceEntry, type SurfaceState } from "../api/handsSocket";
import { parameterHue } from "../geometry/hue";
import { positionText } from "../geometry/viewport";
import { player } from "../sound/player";
import { acting } from "../state/acting";
import { findParameter, heldIn, parametersOf } from "../state/catalogue";
import { edit } from "../state/edits";
import { lookup } from "../state/lookup";
import { tell } from "../state/notice";
import { usePad } from "../state/pad";
import { isArmed, performingNow, toggleArm, usePerforming } from "../state/performing";
import { api } from "../state/questions";
import { EIGHT, eightNow, setAtHand, setsNow, turnPage, useSets } from "../state/sets";
import { song, useSong } from "../state/song";
import { type Surface, setStage, surfacesNow } from "../state/surfaces";
import { transportNow, useTransport } from "../state/transport";
import { setView, useView, viewNow } from "../state/view";
import { release, releaseAll, standsAt, touch, turn } from "./hands";
import { toggleRecording } from "./recording";

/** Values are told to surfaces this often, everything else at most this often. */
const VALUES_MS = 50;
const STATE_MS = 120;
/** What hands on surfaces have turned something to is asked for in words this often. */
const READ_MS = 100;
/** An age that is told is believed up to here. */
const MOST_AGE_MS = 500;

let socket: HandsSocket | null = null;
let stop = (): void => {};

/** The studio plays what surfaces do; it lets them know what there is to turn. */
export function openToSurfaces(songId: number): void {
  closeToSurfaces();
  socket = new HandsSocket(songId, "studio", heard, (open) => setStage({ open, there: [] }));
  let due = 0;
  let last = "";
  const tellState = () => {
    due = 0;
    const state = stateNow();
    const text = JSON.stringify({ ...state, position: "", eight: bare(state.eight), faders: bare(state.faders) });
    if (text !== last) socket?.say(state);
    last = text;
  };
  const soon = () => {
    due ||= window.setTimeout(tellState, STATE_MS);
  };
  const ends = [useSong, useView, usePerforming, useSets, usePad, useTransport].map((store) => store.subscribe(soon));
  const values = window.setInterval(tellValues, VALUES_MS);
  stop = () => {
    clearInterval(values);
    clearTimeout(due);
    for (const end of ends) end();
  };
}

export function closeToSurfaces(): void {
  stop();
  socket?.close();
  socket = null;
  setStage({ open: false, there: [] });
}

const whoIs = (from: string): string => {
  const { there } = surfacesNow();
  const place = there.findIndex(({ id }) => id === from);
  return `surface ${place + 1}`;
};

function heard(said: Said): void {
  if (said.t === "came" && said.role === "surface") return came({ id: said.from, name: said.name });
  if (said.t === "gone" && said.role === "surface") return gone(said.from);
  if (said.t === "ask") return socket?.say(stateNow());
  if (said.t === "touch" || said.t === "turn" || said.t === "release") return hand(said);
  if (said.t === "deed") return perform(said.d);
  if (said.t === "choose") choose(said);
}

function came(surface: Surface): void {
  setStage({ there: [...surfacesNow().there.filter(({ id }) => id !== surface.id), surface] });
  told = {};
  tell("done", `A surface has come: ${surface.name}.`);
  socket?.say(stateNow());
}

function gone(from: string): void {
  releaseAll(whoIs(from));
  setStage({ there: surfacesNow().there.map((one) => (one.id === from ? { ...one, away: true } : one)) });
}

function hand({ t, a, v, age, from }: Extract<Said, { t: "touch" | "turn" | "release" }>): void {
  const { catalogue, model } = song();
  if (!from || typeof a !== "string" || !Number.isFinite(v) || !catalogue || !findParameter(catalogue, model, a))
    return;
  const at = performance.now() - Math.min(Math.max(Number(age) || 0, 0), MOST_AGE_MS);
  const who = whoIs(from);
  if (t === "touch") touch(a, who, at);
  else if (t === "turn") turn(a, v, who, at);
  else release(a, who, at);
  if (t === "turn") void read(a, v);
}

function perform(deed: SurfaceDeed): void {
  if (deed === "play") player.toggle();
  else if (deed === "record") void toggleRecording();
  else if (deed === "hand_back") void edit("hand_back", {});
}

function choose({ track, arm, page }: Extract<Said, { t: "choose" }>): void {
  const known = (id?: string) => song().model.tracks.some((one) => one.id === id);
  if (track && known(track)) setView({ trackId: track });
  if (arm && known(arm)) toggleArm("tracks", arm);
  if (page === 1 || page === -1) turnPage(page);
}

const bare = (entries: SurfaceEntry[]) => entries.map(({ v: _, text: __, ...rest }) => rest);

function entryOf(address: string | null): SurfaceEntry | null {
  const { catalogue, model } = song();
  const found = address && catalogue ? findParameter(catalogue, model, address) : null;
  if (!found || !address) return null;
  const { armed, pass, hands } = performingNow();
  const acts = acting(lookup(model), address);
  const armedNow = isArmed(armed, address);
  const written = armedNow && pass !== null && hands[address] !== undefined;
  const moved = acts.clip === "on" || acts.lane === "on" ? "moved" : "";
  const state = written ? "writing" : armedNow ? "armed" : heldIn(found.owner, found) ? "held" : moved;
  return {
    a: address,
    name: found.entry.name,
    owner: found.owner.name,
    hue: parameterHue(address),
    v: standsAt(address),
    text: textOf(address),
    state,
    steps: found.scale.steps ?? 0,
  };
}

const entriesOf = (addresses: string[]): SurfaceEntry[] =>
  addresses.flatMap((address) => {
    const entry = entryOf(address);
    return entry ? [entry] : [];
  });

function faders(): string[] {
  const { catalogue, model } = song();
  if (!catalogue) return [];
  return model.tracks
    .filter(({ kind }) => kind !== "carrier")
    .flatMap((track) => parametersOf(catalogue, model.tracks, track).find(({ id }) => id === "channel")?.list ?? [])
    .filter(({ entry }) => entry.id === "volume")
    .map(({ address }) => address);
}

const positionNow = (): string => positionText(song().model.head.meters, transportNow().playhead);

function stateNow(): SurfaceState {
  const { model } = song();
  const { trackId, focus } = viewNow();
  const { armed, pass } = performingNow();
  const set = setAtHand(song(), trackId ? focus[trackId] : undefined, trackId);
  const { x, y } = usePad.getState();
  return {
    t: "state",
    song: model.head.name,
    playing: transportNow().playing,
    recording: pass !== null,
    position: positionNow(),
    track: trackId ?? "",
    tracks: model.tracks
      .filter(({ kind }) => kind !== "carrier")
      .map(({ id, name, hue }) => ({ id, name, hue, armed: armed.tracks.includes(id) })),
    set: { name: set.name, page: setsNow().page, pages: Math.max(1, Math.ceil(set.addresses.length / EIGHT)) },
    eight: entriesOf(eightNow()),
    faders: entriesOf(faders()),
    pad: { x: entryOf(x), y: entryOf(y) },
  };
}

let told: Record<string, number> = {};
/** What hands on surfaces have turned something to, in the core's words; and what is to be asked next. */
const texts = new Map<string, string>();
let asked: [address: string, value: number] | null = null;
let busy = false;

/** Asks for the newest value in words: one question at a time. */
async function read(address: string, value: number): Promise<void> {
  asked = [address, Math.min(Math.max(value, 0), 1)];
  if (busy) return;
  busy = true;
  while (asked) {
    const [at, wish]: [string, number] = asked;
    asked = null;
    const answer = await api()
      .reading({ address: at, value: wish })
      .catch(() => null);
    if (!answer) continue;
    texts.set(at, answer[1]);
    delete told[at];
    await new Promise((done) => setTimeout(done, READ_MS));
  }
  busy = false;
}

/** The text of a parameter: while a hand holds it, of where that has it. */
const textOf = (address: string): string =>
  (performingNow().hands[address] === undefined ? undefined : texts.get(address)) ?? song().exact[address]?.[1] ?? "";

/** What has changed of what surfaces show. */
function tellValues(): void {
  if (!surfacesNow().there.some(({ away }) => !away)) return;
  const { x, y } = usePad.getState();
  const changed: Record<string, [number, string]> = {};
  for (const address of new Set([...eightNow(), ...faders(), ...(x ? [x] : []), ...(y ? [y] : [])])) {
    const value = standsAt(address);
    if (told[address] !== value) changed[address] = [value, textOf(address)];
    told[address] = value;
  }
  if (transportNow().playing || Object.keys(changed).length > 0)
    socket?.say({ t: "values", position: positionNow(), v: changed });
}
