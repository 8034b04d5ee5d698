import { ask, get, post } from "./client";
import type { BakedCurves, Comparison, VersionEntry } from "./types";

/** A song as it stood, under names. */
export const versionsOf = (songId: number) => ({
  list: () => get<VersionEntry[]>(`/api/songs/${songId}/versions`),
  keep: (name: string) => post<VersionEntry>(`/api/songs/${songId}/versions`, { name }),
  remove: (id: number) => ask<object>("DELETE", `/api/songs/${songId}/versions/${id}`),
  compare: (id: number) => get<Comparison>(`/api/songs/${songId}/versions/${id}/comparison`),
  curves: (id: number, address: string) =>
    get<BakedCurves>(`/api/songs/${songId}/versions/${id}/curves?${new URLSearchParams({ address })}`),
});
