import type { EditInputs, Normalised, Seconds } from "../api/types";
import type { Place } from "../sound/planner";
import { player } from "../sound/player";
import { gridNow } from "../state/grid";
import { journal, type Left } from "../state/journal";
import { type Line, performingNow, setPerforming } from "../state/performing";
import { song } from "../state/song";
import { transportNow } from "../state/transport";
import { delivered } from "./delivery";

/** One touch: seconds and values in turns, and where the hand let go; and the same to be drawn, in ticks. */
interface Grip {
  samples: number[];
  until: Seconds | null;
  line: Line;
}

const gripAt = (seconds: Seconds, value: Normalised, until: Seconds | null = null): Grip => ({
  samples: [seconds, value],
  until,
  line: { ticks: [player.tickAt(seconds)], values: [value] },
});

const LOOK_EVERY_MS = 40;
/** So long before its end a lap is written, so that what was played is heard when it begins again. */
const AHEAD_SECONDS = 0.4;
/** The playhead that goes back, or on, by more was put there. */
const BACK_SECONDS = 0.1;
const ON_SECONDS = 1;
/** A hand begun so little before the start counts as on it. */
const EARLY_SECONDS = 0.15;

/** Takes down what hands do with parameters while the song goes on, lap by lap, and has it written. */
class MovePass {
  private grips = new Map<string, Grip[]>();
  private pass: string | null = null;
  /** Whether moves are taken. */
  going = false;
  /** Whether the song has something of this pass, of whichever lap. */
  wrote = false;
  private lap = 0;
  private turn = 0;
  /** Where what is not written yet begins, and where the song was when it was last looked at. */
  private from = 0;
  private last = 0;
  private lapEnd = Number.POSITIVE_INFINITY;
  private timer = 0;
  private looks = 0;
  private waiting: Promise<boolean> = Promise.resolve(true);
  /** What was let go and follows the song again later. */
  private later = new Set<string>();

  /** A pass is about to begin: what is played is written down in the browser too from now on. */
  open(pass: string): void {
    this.pass = pass;
    this.lap = 0;
    this.wrote = false;
    const { songId } = song();
    if (songId !== null) journal.begin(songId, this.ways());
  }

  /** Begins with the song as it plays. */
  begin(): void {
    const place = player.heardAt(performance.now());
    const at = place ? Math.max(place.seconds, place.lap.from) : player.secondsAt(transportNow().playhead);
    this.going = true;
    this.grips.clear();
    this.later.clear();
    this.turn = place?.turn ?? 0;
    this.from = this.last = at;
    this.lapEnd = place?.lap.to ?? Number.POSITIVE_INFINITY;
    this.timer = window.setInterval(() => this.look(), LOOK_EVERY_MS);
  }

  /** A hand takes hold of a parameter, at a moment of the browser's clock. */
  touch(address: string, value: Normalised, at: number): void {
    const seconds = this.secondsOf(at);
    if (seconds === null) return;
    this.later.delete(address);
    this.list(address).push(gripAt(seconds, value));
    journal.add([address, this.lap, seconds, value]);
  }

  move(address: string, value: Normalised, at: number): void {
    const grip = this.held(address);
    const seconds = this.secondsOf(at);
    if (!grip || seconds === null) return;
    grip.samples.push(Math.max(seconds, grip.samples[grip.samples.length - 2]), value);
    grip.line.ticks.push(player.tickAt(seconds));
    grip.line.values.push(value);
    journal.add([address, this.lap, seconds, value]);
  }

  /** A hand lets go; the sound comes back as the ways say. */
  release(address: string, at: number): void {
    const grip = this.held(address);
    const seconds = this.secondsOf(at);
    if (grip) grip.until = Math.max(seconds ?? this.last, grip.samples[grip.samples.length - 2]);
    journal.add([address, this.lap, grip?.until ?? this.last, null]);
    const { back, glide, span } = performingNow();
    if (back === "once" && span === "touch") player.letGo(address, glide);
    else this.later.add(address);
  }

  /** Ends the pass; the song goes on. Returns, once all of it is dealt with, whether it is in the song. */
  async end(): Promise<boolean> {
    if (!this.pass) return true;
    clearInterval(this.timer);
    if (this.going) {
      const place = player.heardAt(performance.now()) ?? player.stoppedAt;
      const now = place && place.turn === this.turn ? Math.max(place.seconds, this.last) : this.last;
      this.write(Math.min(now, this.lapEnd), false, now, false);
      this.letLaterGo();
    }
    this.going = false;
    this.pass = null;
    setPerforming({ lines: {} });
    const done = await this.waiting;
    this.waiting = Promise.resolve(true);
    return done;
  }

  private list(address: string): Grip[] {
    const list = this.grips.get(address) ?? [];
    this.grips.set(address, list);
    return list;
  }

  private held = (address: string): Grip | undefined => {
    const last = this.grips.get(address)?.at(-1);
    return last?.until === null ? last : undefined;
  };

  /** Where in this lap a moment lies; null while the song has not begun. */
  private secondsOf(at: number): Seconds | null {
    const place = player.heardAt(at - performingNow().latenessMs);
    if (!place) return null;
    if (place.turn > this.turn || this.jumped(place)) this.look();
    if (place.turn < this.turn) return this.from;
    if (place.seconds < place.lap.from - EARLY_SECONDS) return null;
    return Math.max(place.seconds, this.from);
  }

  /** Follows the song: laps end, the playhead is put elsewhere, what is nearly over is written. */
  private look(): void {
    const place = player.heardAt(performance.now());
    if (!transportNow().playing || !place) return;
    if (place.turn > this.turn) this.nextLap(place);
    else if (this.jumped(place)) this.again(place);
    this.last = Math.max(place.seconds, place.lap.from);
    this.lapEnd = place.lap.to;
    if (this.lapEnd - this.last < AHEAD_SECONDS && this.from < this.lapEnd - AHEAD_SECONDS) this.write(this.last, true);
    this.show();
    journal.put(this.ways());
  }

  private jumped({ turn, seconds, lap }: Place): boolean {
    const at = Math.max(seconds, lap.from);
    return turn < this.turn || (turn === this.turn && (at < this.last - BACK_SECONDS || at > this.last + ON_SECONDS));
  }

  private nextLap({ turn, lap }: Place): void {
    this.write(this.lapEnd, false, lap.from);
    this.lap += 1;
    this.turn = turn;
    this.from = this.last = lap.from;
    if (performingNow().back !== "stop") this.letLaterGo();
  }

  private again({ turn, seconds, lap }: Place): void {
    const at = Math.max(seconds, lap.from);
    this.write(this.last, false, at);
    this.lap += 1;
    this.turn = turn;
    this.from = this.last = at;
  }

  private letLaterGo(): void {
    for (const address of this.later) player.letGo(address, performingNow().glide);
    this.later.clear();
  }

  /**
   * What has come so far, as an edit. What is still held goes on from where it is: in this lap, or at the start of the
   * next; and so, in this lap, does what is latched.
   */
  private write(to: Seconds, inLap: boolean, next = to, quietly = true): void {
    const latch = performingNow().span === "latch";
    const moves: EditInputs["record_moves"]["moves"] = [];
    const goingOn = new Map<string, Grip[]>();
    for (const [address, grips] of this.grips) {
      moves.push({
        address,
        grips: grips.map(({ samples, until }) => ({ samples, ...(until === null ? {} : { until_seconds: until }) })),
      });
      const last = grips[grips.length - 1];
      if (last.until === null || (inLap && latch))
        goingOn.set(address, [gripAt(next, last.samples[last.samples.length - 1], last.until === null ? null : next)]);
    }
    this.grips = goingOn;
    const from = this.from;
    if (inLap) this.from = to;
    if (moves.length > 0 && to > from)
      this.send({ ...this.ways(), lap: this.lap, from_seconds: from, to_seconds: to, moves }, quietly);
  }

  private send(inputs: EditInputs["record_moves"], quietly: boolean): void {
    journal.put(this.ways());
    const mark = journal.mark;
    this.waiting = this.waiting.then(async (before) => {
      const { revision } = song();
      const done = await delivered("record_moves", inputs, { quietly });
      if (done) journal.done(mark);
      if (done && song().revision > revision) this.wrote = true;
      return done && before;
    });
  }

  private ways(): Left["ways"] {
    const { into, span, laps, role, glide, onGrid, insideRange, separate } = performingNow();
    return {
      pass: this.pass ?? "",
      into,
      ...(role === "as" ? {} : { role }),
      latch: span === "latch",
      glide_seconds: glide,
      grid_ticks: onGrid ? gridNow() : 0,
      inside_range: insideRange,
      separate,
      kept_only: laps === "first" && this.lap > 0,
    };
  }

  /** Has what this lap was given drawn, in every other look. */
  private show(): void {
    this.looks += 1;
    if (this.looks % 2 === 1 || this.grips.size === 0) return;
    const here = player.tickAt(this.last);
    const lines: Record<string, Line[]> = {};
    for (const [address, grips] of this.grips)
      lines[address] = grips.map(({ line, until }) => ({ ...line, end: until === null ? here : player.tickAt(until) }));
    setPerforming({ lines });
  }
}

export const movePass = new MovePass();
