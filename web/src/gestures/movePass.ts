import type { EditInputs, Normalised, Seconds } from "../api/types";
import type { Place } from "../sound/planner";
import { player } from "../sound/player";
import { gridNow } from "../state/grid";
import { journal, type Left } from "../state/journal";
import { type Line, performingNow, setPerforming } from "../state/performing";
import { song } from "../state/song";
import { transportNow } from "../state/transport";
import { delivered } from "./delivery";
import { AHEAD_SECONDS, EARLY_SECONDS, LapKeeper } from "./lapKeeper";

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

/** Takes down what hands do with parameters while the song goes on, lap by lap, and has it written. */
class MovePass {
  private grips = new Map<string, Grip[]>();
  private pass: string | null = null;
  /** Whether moves are taken. */
  going = false;
  /** Whether the song has something of this pass, of whichever lap. */
  wrote = false;
  private lap = 0;
  private keeper = new LapKeeper();
  private lapEnd = Number.POSITIVE_INFINITY;
  private looks = 0;
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
    this.going = true;
    this.grips.clear();
    this.later.clear();
    this.keeper.begin();
    this.lapEnd = player.heardAt(performance.now())?.lap.to ?? Number.POSITIVE_INFINITY;
    this.keeper.watch(() => this.look());
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
    if (grip) grip.until = Math.max(seconds ?? this.keeper.last, grip.samples[grip.samples.length - 2]);
    journal.add([address, this.lap, grip?.until ?? this.keeper.last, null]);
    const { back, glide, span } = performingNow();
    if (back === "once" && span === "touch") player.letGo(address, glide);
    else this.later.add(address);
  }

  /** Ends the pass; the song goes on. Returns, once all of it is dealt with, whether it is in the song. */
  async end(): Promise<boolean> {
    if (!this.pass) return true;
    this.keeper.stop();
    if (this.going) {
      const { turn, last } = this.keeper;
      const place = player.heardAt(performance.now()) ?? player.stoppedAt;
      const now = place && place.turn === turn ? Math.max(place.seconds, last) : last;
      this.write(Math.min(now, this.lapEnd), false, now, false);
      this.letLaterGo();
    }
    this.going = false;
    this.pass = null;
    setPerforming({ lines: {} });
    return this.keeper.dealt();
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
    if (this.keeper.seen(place) !== "on") this.look();
    if (place.turn < this.keeper.turn) return this.keeper.from;
    if (place.seconds < place.lap.from - EARLY_SECONDS) return null;
    return Math.max(place.seconds, this.keeper.from);
  }

  /** Follows the song: laps end, the playhead is put elsewhere, what is nearly over is written. */
  private look(): void {
    const place = player.heardAt(performance.now());
    if (!transportNow().playing || !place) return;
    const seen = this.keeper.seen(place);
    if (seen === "next") this.nextLap(place);
    else if (seen === "elsewhere") this.again(place);
    this.keeper.follow(place);
    this.lapEnd = place.lap.to;
    const { from, last } = this.keeper;
    if (this.lapEnd - last < AHEAD_SECONDS && from < this.lapEnd - AHEAD_SECONDS) this.write(last, true);
    this.show();
    journal.put(this.ways());
  }

  private nextLap(place: Place): void {
    this.write(this.lapEnd, false, place.lap.from);
    this.lap += 1;
    this.keeper.enter(place, place.lap.from);
    if (performingNow().back !== "stop") this.letLaterGo();
  }

  private again(place: Place): void {
    this.write(this.keeper.last, false, Math.max(place.seconds, place.lap.from));
    this.lap += 1;
    this.keeper.enter(place);
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
    const { from } = this.keeper;
    if (inLap) this.keeper.from = to;
    if (moves.length > 0 && to > from)
      this.send({ ...this.ways(), lap: this.lap, from_seconds: from, to_seconds: to, moves }, quietly);
  }

  private send(inputs: EditInputs["record_moves"], quietly: boolean): void {
    journal.put(this.ways());
    const mark = journal.mark;
    this.keeper.send(async () => {
      const { revision } = song();
      const done = await delivered("record_moves", inputs, { quietly });
      if (done) journal.done(mark);
      if (done && song().revision > revision) this.wrote = true;
      return done;
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
    const here = player.tickAt(this.keeper.last);
    const lines: Record<string, Line[]> = {};
    for (const [address, grips] of this.grips)
      lines[address] = grips.map(({ line, until }) => ({ ...line, end: until === null ? here : player.tickAt(until) }));
    setPerforming({ lines });
  }
}

export const movePass = new MovePass();
