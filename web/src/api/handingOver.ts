import { ask, get, post, sendFile, type Told } from "./client";
import type {
  BakedCurves,
  Baking,
  Fetchable,
  HandedOver,
  HandOver,
  HandOverChoices,
  HandOverLimits,
  LimitSet,
} from "./types";

/** Handing a song over: what is chosen, what it costs, the files. */
export const handingOver = (songId: number) => ({
  known: () => get<HandOver>(`/api/songs/${songId}/hand_over`),
  choose: (choices: HandOverChoices) => post<HandOver>(`/api/songs/${songId}/hand_over`, choices),
  baking: (limits: HandOverLimits, work: string) =>
    ask<Baking>("POST", `/api/songs/${songId}/baking`, JSON.stringify({ limits }), work),
  curves: (address: string, limits: HandOverLimits) =>
    post<BakedCurves>(`/api/songs/${songId}/baked_curves`, { address, limits }),
  make: (choices: HandOverChoices, work: string) =>
    ask<HandedOver>("POST", `/api/songs/${songId}/hand_overs`, JSON.stringify(choices), work),
  mixdown: (peak_db: number, revision: number) => post<object>(`/api/songs/${songId}/mixdown`, { peak_db, revision }),
});

/** Sets of limits under names, for all songs. */
export const limitSets = {
  keep: (name: string, limits: HandOverLimits) => post<LimitSet>("/api/limit_sets", { name, limits }),
  remove: (id: number) => ask<object>("DELETE", `/api/limit_sets/${id}`),
};

/** Files that wait to be fetched. */
export const handedOver = (token: string) => ({
  send: (name: string, file: Blob, frames: number, rate: number, told: Told, stop: AbortSignal) =>
    sendFile<object>(
      `/api/hand_overs/${token}/sounds?${new URLSearchParams({ name, frames: String(frames), rate: String(rate) })}`,
      file,
      "audio/wav",
      told,
      stop,
    ),
  wrap: (name: string, work: string) =>
    ask<Fetchable>("POST", `/api/hand_overs/${token}/wrapped?${new URLSearchParams({ name })}`, "{}", work),
  drop: () => ask<object>("DELETE", `/api/hand_overs/${token}`),
  /** The same as the page goes: nobody waits for the answer. */
  leave: () => void fetch(`/api/hand_overs/${token}`, { method: "DELETE", keepalive: true }),
});
