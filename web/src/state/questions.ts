import { songApi } from "../api/client";
import type { Snippet, SongStretch, Ticks } from "../api/types";
import { faultsSaid, type Say } from "./queue";
import { song } from "./song";

export const api = () => songApi(song().songId as number);

/** A stretch of the whole song by itself. Null when there is none; the reason is said. */
export const songStretchOf = (from: Ticks, to: Ticks): Promise<SongStretch | null> =>
  faultsSaid(() => api().songStretch(from, to));

/** The tick a written position names. Null when it names none; the reason is said. */
export const tickOf = async (text: string, say: Say): Promise<Ticks | null> =>
  (await faultsSaid(() => api().position(text), say))?.tick ?? null;

/** A stretch of an envelope as a move by itself. Null when there is none; the reason is said. */
export const snippetOf = (envelopeId: string, from: Ticks, to: Ticks): Promise<Snippet | null> =>
  faultsSaid(() => api().snippet(envelopeId, from, to));
