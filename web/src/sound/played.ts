import { songApi } from "../api/client";
import type { ClockTable, Stretch, Ticks } from "../api/types";
import { versionsOf } from "../api/versions";
import { applyParts, blockTicks, EMPTY, type Model } from "../state/model";
import { song } from "../state/song";
import { Clock } from "./clock";
import { Stretches } from "./stretches";

type Prepare = (stretch: Stretch) => Promise<void>;

/** What is played: its tracks, what the core made of it, and its time. */
export class Played {
  clock = new Clock();
  readonly stretches: Stretches;

  constructor(
    readonly model: () => Model,
    private readonly askClock: () => Promise<ClockTable>,
    ask: (from: Ticks, to: Ticks) => Promise<Stretch>,
    prepare: Prepare,
  ) {
    this.stretches = new Stretches(ask, blockTicks(model()), prepare);
  }

  async readClock(): Promise<void> {
    this.clock = new Clock((await this.askClock()).clock);
  }
}

/** The song as it stands. */
export function fromSong(songId: number, prepare: Prepare): Played {
  const api = songApi(songId);
  return new Played(() => song().model, api.clock, api.sounding, prepare);
}

/** One of its versions, which stays as it is. */
export async function kept(songId: number, version: number, prepare: Prepare): Promise<Played> {
  const api = versionsOf(songId);
  const model = applyParts(EMPTY, (await api.parts(version)).parts);
  const ask = (from: Ticks, to: Ticks) => api.stretch(version, from, to);
  const played = new Played(
    () => model,
    () => api.clock(version),
    ask,
    prepare,
  );
  await played.readClock();
  return played;
}
