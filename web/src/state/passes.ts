import { create } from "zustand";
import type { HandPass } from "../api/types";
import { api } from "./questions";
import { song } from "./song";

/** What hands played in this song and is kept beside it, the last pass first. */
export const usePasses = create<{ list: HandPass[]; songId: number | null }>(() => ({ list: [], songId: null }));
export const passesNow = usePasses.getState;

let asked = 0;

/** Reads what is kept, as it stands with the song. */
export async function readPasses(): Promise<void> {
  const turn = ++asked;
  const { songId } = song();
  const list = await api()
    .passes()
    .catch(() => null);
  if (list && turn === asked && song().songId === songId) usePasses.setState({ list, songId });
}
