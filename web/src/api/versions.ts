import { ask, get, post } from "./client";
import type { BakedCurves, ClockTable, Comparison, Stretch, Ticks, VersionEntry, VersionParts } from "./types";

/** A song as it stood, under names. */
export const versionsOf = (songId: number) => ({
  list: () => get<VersionEntry[]>(`/api/songs/${songId}/versions`),
  keep: (name: string) => post<VersionEntry>(`/api/songs/${songId}/versions`, { name }),
  rename: (id: number, name: string) =>
    ask<VersionEntry>("PUT", `/api/songs/${songId}/versions/${id}`, JSON.stringify({ name })),
  remove: (id: number) => ask<object>("DELETE", `/api/songs/${songId}/versions/${id}`),
  /** @param other another version; else the song as it stands */
  compare: (id: number, other: number | null, work: string) =>
    ask<Comparison>(
      "GET",
      `/api/songs/${songId}/versions/${id}/comparison${other === null ? "" : `?with=${other}`}`,
      undefined,
      work,
    ),
  parts: (id: number) => get<VersionParts>(`/api/songs/${songId}/versions/${id}`),
  /** @param id a version's, or the token of a hand-over, for which the song is held as it stood */
  clock: (id: number | string) => get<ClockTable>(`/api/songs/${songId}/clock?version=${id}`),
  stretch: (id: number | string, from: Ticks, to: Ticks) =>
    get<Stretch>(`/api/songs/${songId}/playback?version=${id}&listened=1&from_tick=${from}&to_tick=${to}`),
  clipStretch: (id: number | string, clipId: string, from: Ticks, to: Ticks) =>
    get<Stretch>(`/api/songs/${songId}/playback?version=${id}&clip_id=${clipId}&from_tick=${from}&to_tick=${to}`),
  curves: (id: number, other: number | null, address: string) => {
    const asked = new URLSearchParams({ address, ...(other === null ? {} : { with: String(other) }) });
    return get<BakedCurves>(`/api/songs/${songId}/versions/${id}/curves?${asked}`);
  },
});
