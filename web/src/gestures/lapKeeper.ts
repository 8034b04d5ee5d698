import type { Seconds } from "../api/types";
import type { Place } from "../sound/planner";
import { player } from "../sound/player";
import { transportNow } from "../state/transport";

const LOOK_EVERY_MS = 40;
/** The playhead that goes back, or on, by more than time has passed meanwhile, was put there. */
const BACK_SECONDS = 0.1;
const ON_SECONDS = 1;
/** So long before its end a lap is written, so that what was played is heard when it begins again. */
export const AHEAD_SECONDS = 0.4;
/** What is begun so little before the start counts as on it. */
export const EARLY_SECONDS = 0.15;

/** Where the song is heard, never before the lap's own start. */
const within = ({ seconds, lap }: Place): Seconds => Math.max(seconds, lap.from);

/** Where a pass is while the song goes on: its laps, and what of it is on its way. Notes and moves each have one. */
export class LapKeeper {
  /** The lap that is played, as the player counts them. */
  turn = 0;
  /** Where what is not written yet begins, and where the song was when it was last looked at. */
  from: Seconds = 0;
  last: Seconds = 0;
  /** When that was, by the browser's clock, in ms: a page that stood still for a while has not jumped. */
  private lookedAt = 0;
  private timer = 0;
  private sent: Promise<boolean> = Promise.resolve(true);

  /** Begins where the song is heard, or, before it plays, where the playhead stands. */
  begin(): void {
    const place = player.heardAt(performance.now());
    this.turn = place?.turn ?? 0;
    this.from = this.last = place ? within(place) : player.secondsAt(transportNow().playhead);
    this.lookedAt = performance.now();
  }

  /** Has the song looked at again and again, until `stop`. */
  watch(look: () => void): void {
    this.timer = window.setInterval(look, LOOK_EVERY_MS);
  }

  stop(): void {
    clearInterval(this.timer);
  }

  /** What became of the playhead since the last look: it went on, into a next lap, or was put elsewhere. */
  seen(place: Place): "on" | "next" | "elsewhere" {
    const at = within(place);
    if (place.turn > this.turn) return "next";
    const passed = (performance.now() - this.lookedAt) / 1000;
    const jumped = place.turn < this.turn || at < this.last - BACK_SECONDS || at > this.last + passed + ON_SECONDS;
    return jumped ? "elsewhere" : "on";
  }

  /** Goes on with the song, in the same lap. */
  follow(place: Place): void {
    this.last = within(place);
    this.lookedAt = performance.now();
  }

  /** Goes on where the song is now: in a next lap from its start, else from where the playhead was put. */
  enter(place: Place, at: Seconds = within(place)): void {
    this.turn = place.turn;
    this.from = this.last = at;
    this.lookedAt = performance.now();
  }

  /** Has something written after all that was sent before. */
  send(write: () => Promise<boolean>): void {
    this.sent = this.sent.then(async (before) => (await write()) && before);
  }

  /** Whether all that was sent is in the song, once it is dealt with. */
  async dealt(): Promise<boolean> {
    const done = await this.sent;
    this.sent = Promise.resolve(true);
    return done;
  }
}
