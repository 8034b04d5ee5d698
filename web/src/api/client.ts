import { answered, justAway, keptNow, showKept, wentAway } from "./connection";
import { keptAnswer, keptSong } from "./kept";
import { CalledOff, send } from "./send";
import type {
  AtPlayhead,
  Catalogue,
  Change,
  ClockTable,
  DeviceKey,
  EditHistory,
  EditInputs,
  Explanation,
  Fault,
  Freed,
  Gone,
  HandPass,
  HeardBands,
  Help,
  Invitation,
  KeptMove,
  KeyList,
  Listening,
  LooseEnds,
  MappingLists,
  MidiDocument,
  MissingSounds,
  MoveSettings,
  MovesTable,
  OfflineCopy,
  PresetEntry,
  Preview,
  Progress,
  Reading,
  SatchelEntry,
  ShelfEntry,
  Snapshot,
  Snippet,
  SongDocument,
  SongStretch,
  SoundEntry,
  SoundOutline,
  Stretch,
  Ticks,
  TrackCounts,
  TrackDrawing,
  Values,
  Wants,
} from "./types";

/** What the server said no to, with every fault it found. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly faults: Fault[],
  ) {
    super(faults.map((fault) => fault.message).join(" "));
  }
}

/** A name that nothing else has; pages that are not secure have no UUIDs. */
export const newToken = (): string =>
  crypto.randomUUID?.() ?? `token-${Math.random().toString(36).slice(2)}${Math.random().toString(36).slice(2)}`;

/** Names this tab. */
export const TAB = newToken();

const AWAY: Fault = {
  code: "no_server",
  path: "",
  message: "The server does not answer, so nothing was changed. Is it still running?",
};

const NOT_KEPT: Fault = { code: "not_kept", path: "", message: "Offline, so this cannot be asked." };

export async function ask<T>(
  method: string,
  path: string,
  body?: string | Blob,
  work?: string,
  type = "application/json",
): Promise<T> {
  let response: Response;
  if (method === "GET" && keptNow() !== null) return fromKept<T>(path);
  if (method === "GET" && justAway()) throw new Refused(0, [AWAY]);
  try {
    const headers = {
      ...(body === undefined ? {} : { "Content-Type": type }),
      ...(work ? { "X-Work": work } : {}),
    };
    response = await fetch(path, { method, body, headers });
  } catch {
    wentAway();
    throw new Refused(0, [AWAY]);
  }
  answered();
  return said<T>(response.status, await response.json().catch(() => null));
}

async function fromKept<T>(path: string): Promise<T> {
  const answer = await keptAnswer(path);
  if (answer === undefined) throw new Refused(0, [(await keptSong()) ? NOT_KEPT : AWAY]);
  return answer as T;
}

/** What a page begins with: where the server is away, as it was kept; all else is then read from there too. */
async function getToBegin<T>(path: string): Promise<T> {
  try {
    return await get<T>(path);
  } catch (error) {
    if (!(error instanceof Refused) || error.status !== 0) throw error;
    const answer = await fromKept<T>(path);
    showKept((await keptSong())?.at ?? null);
    return answer;
  }
}

/** What the server said, or the fault that it is. */
function said<T>(status: number, data: (T & { faults?: Fault[] }) | null): T {
  if (status >= 200 && status < 300 && data !== null) return data;
  const none = { code: "no_answer", path: "", message: `The server answered ${status}.` };
  throw new Refused(status, data?.faults ?? [none]);
}

/** Sends a file that may take long; how far it is is told, and it can be called off. */
export async function sendFile<T>(path: string, file: Blob, type: string, told: Told, stop: AbortSignal): Promise<T> {
  const { status, text } = await send(path, file, type, told, stop).catch((error) => {
    if (error instanceof CalledOff) throw error;
    wentAway();
    throw new Refused(0, [AWAY]);
  });
  answered();
  return said<T>(status, parsed(text));
}

export type Told = (share: number) => void;

function parsed(text: string) {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

export const get = <T>(path: string) => ask<T>("GET", path);
export const post = <T>(path: string, data: unknown = {}) => ask<T>("POST", path, JSON.stringify(data));

export const help = () => get<Help>("/api/help");
export const catalogue = () => getToBegin<Catalogue>("/api/catalogue");

export const shelf = {
  list: () => getToBegin<ShelfEntry[]>("/api/songs"),
  make: (name: string, from: "beat" | "empty" = "beat") => post<ShelfEntry>("/api/songs", { name, from }),
  duplicate: (id: number) => post<ShelfEntry>(`/api/songs/${id}/duplicate`),
  remove: (id: number) => ask<object>("DELETE", `/api/songs/${id}`),
  restore: (id: number) => post<ShelfEntry>(`/api/songs/${id}/restore`),
  bin: () => get<ShelfEntry[]>("/api/bin"),
  emptyBin: (id?: number) => ask<Gone>("DELETE", id === undefined ? "/api/bin" : `/api/bin/${id}`),
  import: (text: string, work: string) => ask<ShelfEntry>("POST", "/api/songs/import", text, work),
  importMidi: (name: string, file: Blob, controls: string, work: string) =>
    ask<ShelfEntry>(
      "POST",
      `/api/songs/import_midi?${new URLSearchParams({ name, controls })}`,
      file,
      work,
      "audio/midi",
    ),
  readMidi: (name: string, file: Blob, controls: string, work: string) =>
    ask<MidiDocument>("POST", `/api/midi?${new URLSearchParams({ name, controls })}`, file, work, "audio/midi"),
  importPacked: (file: Blob, told: Told, stop: AbortSignal) =>
    sendFile<ShelfEntry>("/api/songs/import_packed", file, "application/zip", told, stop),
  packedPath: (id: number) => `/api/songs/${id}/packed`,
  exportPath: (id: number) => `/api/songs/${id}/export`,
};

export const presets = {
  list: () => get<PresetEntry[]>("/api/presets"),
  keep: (name: string, device: string | null, devices: PresetEntry["devices"]) =>
    post<PresetEntry>("/api/presets", { name, device, devices }),
  remove: (id: number) => ask<object>("DELETE", `/api/presets/${id}`),
};

/** The satchel: moves by themselves, for all songs. */
export const moves = {
  list: () => get<SatchelEntry[]>("/api/moves"),
  keep: (move: KeptMove) => post<SatchelEntry>("/api/moves", { move }),
  rename: (id: number, name: string, tags: string[]) => post<SatchelEntry>(`/api/moves/${id}`, { name, tags }),
  remove: (id: number) => ask<SatchelEntry>("DELETE", `/api/moves/${id}`),
  near: (move: KeptMove) => post<{ ids: number[] }>("/api/moves/near", { move }),
  take: (file: unknown) => post<SatchelEntry[]>("/api/moves/take", file),
};

/** Devices beyond this machine that may use the server. */
export const keys = {
  list: () => get<KeyList>("/api/keys"),
  rename: (id: number, name: string) => post<KeyList>(`/api/keys/${id}`, { name }),
  withdraw: (id: number) => ask<KeyList>("DELETE", `/api/keys/${id}`),
};

export const sounds = {
  outline: (key: string) => get<SoundOutline>(`/api/sounds/${key}/outline`),
  list: () => get<SoundEntry[]>("/api/sounds"),
  add: (name: string, file: Blob, told: Told, stop: AbortSignal) =>
    sendFile<SoundEntry>(`/api/sounds?name=${encodeURIComponent(name)}`, file, "audio/wav", told, stop),
  remove: (digest: string) => ask<object>("DELETE", `/api/sounds/${digest}`),
  free: () => ask<Freed>("DELETE", "/api/sounds"),
};

/** Long work, by a token of one's own: its progress (0..1, and in words), and an end to it. */
export const work = {
  follow(token: string, told: (share: number, words: string) => void): EventSource {
    const events = new EventSource(`/api/jobs/${token}/events`);
    events.addEventListener("progress", (event) => {
      const { progress, words } = JSON.parse((event as MessageEvent<string>).data) as Progress;
      told(progress, words);
    });
    return events;
  },
  cancel: (token: string) => ask<{ cancelled: boolean }>("DELETE", `/api/jobs/${token}`),
  /** The same as the page goes: nobody waits for the answer. */
  leave: (token: string) => void fetch(`/api/jobs/${token}`, { method: "DELETE", keepalive: true }),
};

const asked = (question: Record<string, string | number>): URLSearchParams =>
  new URLSearchParams(Object.entries(question).map(([key, value]) => [key, String(value)]));

/** Everything there is to ask about one song. */
export const songApi = (id: number) => ({
  snapshot: () => get<Snapshot>(`/api/songs/${id}`),
  /** The song as it stands; where the server is away, as it was kept. */
  opening: () => getToBegin<Snapshot>(`/api/songs/${id}`),
  offline: (blockTicks: Ticks) => get<OfflineCopy>(`/api/songs/${id}/offline?block_ticks=${blockTicks}`),
  extract: (regionIds: string[]) => get<SongDocument>(`/api/songs/${id}/extract?region_ids=${regionIds.join(",")}`),
  missing: () => get<MissingSounds>(`/api/songs/${id}/missing`),
  placesSeen: () => post<object>(`/api/songs/${id}/places_seen`),
  clock: () => get<ClockTable>(`/api/songs/${id}/clock`),
  drawing: (trackIds: string[]) => get<TrackDrawing>(`/api/songs/${id}/drawing?tracks=${trackIds.join(",")}`),
  heard: (addresses: string[]) => get<HeardBands>(`/api/songs/${id}/heard?addresses=${addresses.join(",")}`),
  values: (addresses: string[], tick: Ticks) =>
    get<Values>(`/api/songs/${id}/values?addresses=${addresses.join(",")}&tick=${Math.round(tick)}`),
  /** All that is shown of one tick: values, and why one of them is what it is. */
  atPlayhead: (addresses: string[], address: string | null, tick: Ticks) => {
    const explained = address ? `&address=${address}` : "";
    const path = `/api/songs/${id}/at_playhead?addresses=${addresses.join(",")}&tick=${Math.round(tick)}${explained}`;
    return get<AtPlayhead>(path);
  },
  explanation: (address: string, tick: Ticks) =>
    get<Explanation>(`/api/songs/${id}/explanation?address=${address}&tick=${Math.round(tick)}`),
  reading: (question: Record<string, string | number>) => get<Reading>(`/api/songs/${id}/reading?${asked(question)}`),
  moveSettings: (envelopeId: string) => get<MoveSettings>(`/api/songs/${id}/move_settings?envelope_id=${envelopeId}`),
  position: (text: string) => get<{ tick: Ticks }>(`/api/songs/${id}/position?text=${encodeURIComponent(text)}`),
  looseEnds: () => get<LooseEnds>(`/api/songs/${id}/loose_ends`),
  keptMove: (envelopeId: string, from: Ticks, to: Ticks, name: string) => {
    const [from_tick, to_tick] = [Math.round(from), Math.round(to)];
    return get<KeptMove>(`/api/songs/${id}/kept_move?${asked({ envelope_id: envelopeId, from_tick, to_tick, name })}`);
  },
  snippet: (envelopeId: string, from: Ticks, to: Ticks) =>
    get<Snippet>(
      `/api/songs/${id}/snippet?envelope_id=${envelopeId}&from_tick=${Math.round(from)}&to_tick=${Math.round(to)}`,
    ),
  songStretch: (from: Ticks, to: Ticks) => get<SongStretch>(`/api/songs/${id}/stretch?from_tick=${from}&to_tick=${to}`),
  movesTable: (places: EditInputs["copy_moves"]) =>
    get<MovesTable>(`/api/songs/${id}/moves_table?${new URLSearchParams(places as Record<string, string>)}`),
  invitation: (kind: DeviceKey["kind"]) => post<Invitation>(`/api/songs/${id}/invitation`, { kind }),
  mappings: () => get<MappingLists>(`/api/songs/${id}/mappings`),
  keepMappings: (lists: Partial<MappingLists>) => post<MappingLists>(`/api/songs/${id}/mappings`, lists),
  passes: () => get<HandPass[]>(`/api/songs/${id}/passes`),
  dropPass: (pass: string) => ask<Gone>("DELETE", `/api/songs/${id}/passes/${pass}`),
  trackCounts: (trackId: string) => get<TrackCounts>(`/api/songs/${id}/track_counts?track_id=${trackId}`),
  stretch: (from: Ticks, to: Ticks) => get<Stretch>(`/api/songs/${id}/playback?from_tick=${from}&to_tick=${to}`),
  /** The same as somebody hears it, without the moves that rest. */
  sounding: (from: Ticks, to: Ticks) =>
    get<Stretch>(`/api/songs/${id}/playback?listened=1&from_tick=${from}&to_tick=${to}`),
  /** The same of one of its clips by itself. */
  clipStretch: (clipId: string, from_tick: Ticks, to_tick: Ticks) =>
    get<Stretch>(`/api/songs/${id}/playback?${asked({ clip_id: clipId, from_tick, to_tick })}`),
  edit: <K extends keyof EditInputs>(revision: number, edit: K, inputs: EditInputs[K], wants: Wants) =>
    post<Change>(`/api/songs/${id}/edits`, { revision, edit, inputs, tab: TAB, ...wants }),
  preview: <K extends keyof EditInputs>(revision: number, edit: K, inputs: EditInputs[K], wants: Wants) =>
    post<Preview>(`/api/songs/${id}/preview`, { revision, edit, inputs, ...wants }),
  listening: (wish: { track_id: string; muted?: boolean; soloed?: boolean } | { rest: string; rests: boolean }) =>
    post<Listening>(`/api/songs/${id}/listening`, { tab: TAB, ...wish }),
  step: (word: "undo" | "redo", revision: number, wants: Wants) =>
    post<Change>(`/api/songs/${id}/${word}`, { revision, tab: TAB, ...wants }),
  history: () => get<EditHistory>(`/api/songs/${id}/history`),
  goTo: (place: number, revision: number, wants: Wants) =>
    post<Change>(`/api/songs/${id}/history`, { place, revision, tab: TAB, ...wants }),
  events: () => new EventSource(`/api/songs/${id}/events`),
});
export type SongApi = ReturnType<typeof songApi>;
