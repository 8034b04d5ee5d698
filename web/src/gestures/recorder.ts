import type { EditInputs } from "../api/types";
import type { Place } from "../sound/planner";
import { player } from "../sound/player";
import { gridNow } from "../state/grid";
import { journal } from "../state/journal";
import { playInNow, setPlayIn } from "../state/playIn";
import { song } from "../state/song";
import { transportNow } from "../state/transport";
import { delivered } from "./delivery";

type Note = EditInputs["record_notes"]["notes"][number];

/** A note as it was played: in which lap it began, and when; its end when it is let go. */
interface Played {
  turn: number;
  start: number;
  end: number | null;
  pitch: number;
  velocity: number;
}

/** A note begun so little before the start counts as on it. */
const EARLY_SECONDS = 0.15;
const LOOK_EVERY_MS = 40;
/** After a lap has ended, notes of its last moments may still come in. */
const AFTER_SECONDS = 0.06;
const SHORTEST_SECONDS = 0.01;
/** The playhead that goes back by more was put there. */
const JUMP_SECONDS = 0.1;
/** So long before its end a lap is written, so that its first notes are there when it begins again. */
const AHEAD_SECONDS = 0.4;

/** Writes down what is played while the song goes on: a pass for each lap, in seconds of the song as it is heard. */
class Recorder {
  private notes: Played[] = [];
  private pass = "";
  private begun = 0;
  /** Where the song was when it was last looked at. */
  private last = 0;
  /** The lap that is being played, and where the laps before it ended. */
  private turn = 0;
  private ends: Map<number, [from: number, to: number]> = new Map();
  private written = new Set<number>();
  private timer = 0;
  private waiting: Promise<boolean> = Promise.resolve(true);

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
    if (transportNow().playing) {
      const place = player.heardAt(performance.now());
      this.begun = Math.max(place?.seconds ?? 0, place?.lap.from ?? 0);
      this.turn = place?.turn ?? 0;
    } else {
      this.begun = player.secondsAt(transportNow().playhead);
      this.turn = 0;
      await player.play(playInNow().countIn);
    }
    this.last = this.begun;
    this.timer = window.setInterval(() => this.look(), LOOK_EVERY_MS);
  }

  /** Ends the pass and writes what it brought. The song goes on. Returns whether all of it is in the song. */
  async stop(): Promise<boolean> {
    const { recording } = playInNow();
    if (!recording) return true;
    clearInterval(this.timer);
    if (transportNow().playing) this.look();
    const place = player.heardAt(performance.now()) ?? player.stoppedAt;
    const now = place && place.turn === this.turn ? place.seconds : (this.ends.get(this.turn)?.[1] ?? this.last);
    for (const note of this.notes) note.end ??= note.turn === this.turn ? now : this.endOf(note.turn, now);
    setPlayIn({ recording: null });
    for (const turn of [...new Set(this.notes.map((note) => note.turn))].sort((a, b) => a - b))
      this.write(recording, turn, now);
    this.notes = [];
    const done = await this.waiting;
    this.waiting = Promise.resolve(true);
    return done;
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
    journal.putNotes(recording && ended.length > 0 ? this.inputs(recording, this.turn, this.last, ended) : null);
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

  private lapStart = (): number => player.heardAt(performance.now())?.lap.from ?? this.begun;

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
    if (this.jumped(place)) this.again(recording, place);
    this.last = Math.max(place.seconds, place.lap.from);
    if (place.turn > this.turn) return this.nextLap(recording, place);
    const soon = place.lap.to - place.seconds < AHEAD_SECONDS;
    if (soon && this.notes.length > 0 && this.notes.every(({ end }) => end !== null))
      this.write(recording, this.turn, place.lap.to);
  }

  /** Whether the playhead was put elsewhere, or playing began again. */
  private jumped({ turn, seconds, lap }: Place): boolean {
    const at = Math.max(seconds, lap.from);
    return turn < this.turn || (turn === this.turn && (at < this.last - JUMP_SECONDS || at > this.last + 1));
  }

  /** Writes what was played up to a jump, and goes on from where it led. */
  private again(trackId: string, { turn, seconds, lap }: Place): void {
    for (const note of this.notes) note.end ??= Math.max(this.last, note.start + SHORTEST_SECONDS);
    for (const before of [...new Set(this.notes.map((note) => note.turn))]) this.write(trackId, before, this.last);
    this.ends.clear();
    this.written.clear();
    this.turn = turn;
    this.begun = this.last = Math.max(seconds, lap.from);
  }

  /** A lap has ended; what was held over its end is cut there. */
  private nextLap(trackId: string, { turn, seconds, lap }: Place): void {
    if (seconds < lap.from + AFTER_SECONDS) return;
    const end = player.secondsAt(song().model.head.range.end_tick);
    this.ends.set(this.turn, [this.begun, end]);
    this.ends.set(turn, [lap.from, end]);
    for (const note of this.notes)
      if (note.turn === this.turn && note.end === null && end - note.start > EARLY_SECONDS / 2) note.end = end;
    this.write(trackId, this.turn, end);
    this.turn = turn;
    this.begun = lap.from;
  }

  /** What has ended of one lap, as an edit. Only its first one replaces, over all of the lap. */
  private write(trackId: string, turn: number, end: number): void {
    const done = this.notes.filter((note) => note.turn === turn && note.end !== null);
    this.notes = this.notes.filter((note) => !done.includes(note));
    if (done.length === 0) return;
    const inputs = this.inputs(trackId, turn, end, done);
    this.written.add(turn);
    const wanted = () => song().model.tracks.some(({ id }) => id === trackId);
    this.waiting = this.waiting.then(async (before) => {
      const done = await delivered("record_notes", inputs, { wanted });
      this.show();
      return done && before;
    });
  }

  private inputs(trackId: string, turn: number, end: number, notes: Played[]): EditInputs["record_notes"] {
    const { replace, onGrid } = playInNow();
    return {
      track_id: trackId,
      pass: this.pass,
      from_seconds: Math.min(this.begun, ...notes.map((note) => note.start)),
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
