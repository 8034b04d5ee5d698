import type { EditInputs } from "../api/types";
import type { Place } from "../sound/planner";
import { player } from "../sound/player";
import { gridNow } from "../state/grid";
import { journal } from "../state/journal";
import { playInNow, setPlayIn } from "../state/playIn";
import { song } from "../state/song";
import { transportNow } from "../state/transport";
import { delivered } from "./delivery";
import { AHEAD_SECONDS, EARLY_SECONDS, LapKeeper } from "./lapKeeper";

type Note = EditInputs["record_notes"]["notes"][number];

/** A note as it was played: in which lap it began, and when; its end when it is let go. */
interface Played {
  turn: number;
  start: number;
  end: number | null;
  pitch: number;
  velocity: number;
}

/** After a lap has ended, notes of its last moments may still come in. */
const AFTER_SECONDS = 0.06;
const SHORTEST_SECONDS = 0.01;

/** Writes down what is played while the song goes on: a pass for each lap, in seconds of the song as it is heard. */
class Recorder {
  private notes: Played[] = [];
  private pass = "";
  private keeper = new LapKeeper();
  /** Where each lap began and ended. */
  private ends: Map<number, [from: number, to: number]> = new Map();
  private written = new Set<number>();

  /** Begins where the playhead stands, counted in; while the song plays, at once. */
  async start(trackId: string, pass: string): Promise<void> {
    if (playInNow().recording) return;
    this.pass = pass;
    setPlayIn({ recording: trackId });
    this.notes = [];
    this.ends = new Map();
    this.written = new Set();
    await player.awake();
    if (playInNow().recording !== trackId) return;
    this.keeper.begin();
    if (!transportNow().playing) await player.play(playInNow().countIn);
    this.keeper.watch(() => this.look());
  }

  /** Ends the pass and writes what it brought. The song goes on. Returns whether all of it is in the song. */
  async stop(): Promise<boolean> {
    const { recording } = playInNow();
    if (!recording) return true;
    this.keeper.stop();
    if (transportNow().playing) this.look();
    const { turn: current, last } = this.keeper;
    const place = player.heardAt(performance.now()) ?? player.stoppedAt;
    const now = place && place.turn === current ? place.seconds : this.endOf(current, last);
    for (const note of this.notes) note.end ??= note.turn === current ? now : this.endOf(note.turn, now);
    setPlayIn({ recording: null });
    for (const turn of [...new Set(this.notes.map((note) => note.turn))].sort((a, b) => a - b))
      this.write(recording, turn, now);
    this.notes = [];
    return this.keeper.dealt();
  }

  noteOn(pitch: number, velocity: number, at: number): void {
    const place = playInNow().recording ? player.heardAt(at) : null;
    if (!place || place.seconds < place.lap.from - EARLY_SECONDS) return;
    const start = Math.max(place.seconds, place.lap.from);
    this.notes.push({ turn: place.turn, start, end: null, pitch, velocity });
    this.show();
  }

  noteOff(pitch: number, at: number): void {
    const note = this.notes.find((one) => one.pitch === pitch && one.end === null);
    const place = note && player.heardAt(at);
    if (!note || !place) return;
    if (place.turn === note.turn) note.end = Math.max(place.seconds, note.start + SHORTEST_SECONDS);
    else this.over(note, place.seconds);
    this.show();
  }

  /** Has what is taken down drawn, until it is written. */
  private show(): void {
    const taken = this.notes.map(({ start, end, pitch }) => ({
      start: player.tickAt(start),
      end: end === null ? null : player.tickAt(end),
      pitch,
    }));
    setPlayIn({ taken });
    const { recording } = playInNow();
    const ended = this.notes.map((note) => ({ ...note, end: note.end ?? note.start + SHORTEST_SECONDS }));
    journal.putNotes(
      recording && ended.length > 0 ? this.inputs(recording, this.keeper.turn, this.keeper.last, ended) : null,
    );
  }

  /** A note held over the end of its lap: begun right before it, it was meant for the next one. */
  private over(note: Played, seconds: number): void {
    const [, end] = this.ends.get(note.turn) ?? [0, note.start];
    const [from] = this.ends.get(note.turn + 1) ?? [this.lapStart()];
    if (end - note.start > EARLY_SECONDS / 2) {
      note.end = end;
      return;
    }
    note.turn += 1;
    note.start = from;
    note.end = Math.max(seconds, from + SHORTEST_SECONDS);
  }

  private lapStart = (): number => player.heardAt(performance.now())?.lap.from ?? this.keeper.from;

  private endOf(turn: number, otherwise: number): number {
    return this.ends.get(turn)?.[1] ?? otherwise;
  }

  /** Sees whether a lap ends, and writes it: so it is heard in the next one. */
  private look(): void {
    const place = player.heardAt(performance.now());
    const { recording } = playInNow();
    if (!recording) return;
    if (!transportNow().playing) return void this.stop();
    if (!place) return;
    const seen = this.keeper.seen(place);
    if (seen === "elsewhere") this.again(recording, place);
    this.keeper.follow(place);
    if (seen === "next") return this.nextLap(recording, place);
    const soon = place.lap.to - place.seconds < AHEAD_SECONDS;
    if (soon && this.notes.length > 0 && this.notes.every(({ end }) => end !== null))
      this.write(recording, this.keeper.turn, place.lap.to);
  }

  /** Writes what was played up to a jump, and goes on from where it led. */
  private again(trackId: string, place: Place): void {
    const { last } = this.keeper;
    for (const note of this.notes) note.end ??= Math.max(last, note.start + SHORTEST_SECONDS);
    for (const before of [...new Set(this.notes.map((note) => note.turn))]) this.write(trackId, before, last);
    this.ends.clear();
    this.written.clear();
    this.keeper.enter(place);
  }

  /** A lap has ended; what was held over its end is cut there. */
  private nextLap(trackId: string, place: Place): void {
    const { seconds, lap } = place;
    if (seconds < lap.from + AFTER_SECONDS) return;
    const { turn: ended, from } = this.keeper;
    const end = player.secondsAt(song().model.head.range.end_tick);
    this.ends.set(ended, [from, end]);
    this.ends.set(place.turn, [lap.from, end]);
    for (const note of this.notes)
      if (note.turn === ended && note.end === null && end - note.start > EARLY_SECONDS / 2) note.end = end;
    this.write(trackId, ended, end);
    this.keeper.enter(place, lap.from);
    this.keeper.follow(place);
  }

  /** What has ended of one lap, as an edit. Only its first one replaces, over all of the lap. */
  private write(trackId: string, turn: number, end: number): void {
    const done = this.notes.filter((note) => note.turn === turn && note.end !== null);
    this.notes = this.notes.filter((note) => !done.includes(note));
    if (done.length === 0) return;
    const inputs = this.inputs(trackId, turn, end, done);
    this.written.add(turn);
    const wanted = () => song().model.tracks.some(({ id }) => id === trackId);
    this.keeper.send(async () => {
      const done = await delivered("record_notes", inputs, { wanted });
      this.show();
      return done;
    });
  }

  private inputs(trackId: string, turn: number, end: number, notes: Played[]): EditInputs["record_notes"] {
    const { replace, onGrid } = playInNow();
    return {
      track_id: trackId,
      pass: this.pass,
      from_seconds: Math.min(this.keeper.from, ...notes.map((note) => note.start)),
      to_seconds: Math.max(end, ...notes.map((note) => note.end ?? 0)),
      notes: notes.map(written),
      replace: replace && !this.written.has(turn),
      whole: song().model.head.range.on,
      grid_ticks: onGrid ? gridNow() : 0,
    };
  }
}

const written = ({ start, end, pitch, velocity }: Played): Note => ({
  start_seconds: start,
  end_seconds: Math.max(end ?? start, start + SHORTEST_SECONDS),
  pitch,
  velocity,
});

export const recorder = new Recorder();
