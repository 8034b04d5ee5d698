import type { Change, Preview, Ticks } from "../api/types";

/** What follows the song without the song knowing of it: sound. */
export interface Follower {
  opened(songId: number): void;
  /** An edit was made here. */
  made(change: Change): void;
  /** The song is another one now: somebody else changed it. */
  changed(): void;
  /** Other tracks are listened to. */
  listening(): void;
  tried(preview: Preview): void;
  /** What was tried is given up. */
  dropped(): void;
  /** The stretch an answer should bring ramps for; none while nothing plays. */
  stretchInPlay(): { from_tick: Ticks; to_tick: Ticks } | undefined;
}

const NOBODY: Follower = {
  opened: () => {},
  made: () => {},
  changed: () => {},
  listening: () => {},
  tried: () => {},
  dropped: () => {},
  stretchInPlay: () => undefined,
};

let follower = NOBODY;

export const followWith = (next: Follower): void => {
  follower = next;
};

export const follows = (): Follower => follower;
