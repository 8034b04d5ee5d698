import type { Change, Preview, Stretch, Ticks, VersionEntry } from "../api/types";
import { barTicks, meterAt } from "../geometry/viewport";
import type { Follower } from "../state/followers";
import { forgetHearing, hearingNow, setHearing } from "../state/hearing";
import { lookup } from "../state/lookup";
import { applyParts, songEnd, soundIds } from "../state/model";
import { performingNow } from "../state/performing";
import { playInNow } from "../state/playIn";
import { song } from "../state/song";
import { setLevel, setPeaks, setTransport, transportNow } from "../state/transport";
import { setView } from "../state/view";
import { click } from "./click";
import { type CountIn, Engine, type Score } from "./engine";
import { Hands } from "./hands";
import { leadOut, outputNow } from "./output";
import type { Voice } from "./parts";
import type { Place } from "./planner";
import { fromSong, kept, type Played } from "./played";
import { Rack } from "./rack";
import { Rest } from "./rest";
import { Shown } from "./shown";
import { Sounds } from "./sounds";
import { Stretched } from "./stretched";
import { loadWorklets } from "./worklets";

/** A note that is not let go ends by itself after so long. */
const LONGEST_SECONDS = 600;

/** So long after the last that was heard the sound rests: once playing has stopped, and while keys may be played. */
const REST_SECONDS = { stopped: 10, awake: 60 };

/** What cannot be had now is asked for again when it is needed. */
const leave = (): void => {};

/** The transport: what the rest of the app sees of the sound. */
class Player implements Follower {
  private context: AudioContext | null = null;
  private sounds: Sounds | null = null;
  private rack: Rack | null = null;
  private engine: Engine | null = null;
  private stretched: Stretched | null = null;
  /** The song as it stands, the versions of it that were heard, and the one that is heard instead. */
  private asItStands: Played | null = null;
  private versions = new Map<number, Promise<Played>>();
  private other: Played | null = null;
  private turns = 0;
  private meter: AnalyserNode | null = null;
  private rest: Rest | null = null;
  private hands: Hands | null = null;
  private readonly shown = new Shown();
  /** Where the song was heard last when it stopped. */
  stoppedAt: Place | null = null;

  /** Another output, or another haste: what plays goes on there from where it is. */
  outputChanged(): void {
    const playing = transportNow().playing;
    this.stop();
    this.rest?.cancel();
    this.rack?.dispose();
    void this.context?.close();
    this.stretched?.dispose();
    this.rest = this.context = this.sounds = this.rack = this.engine = this.hands = this.stretched = null;
    if (playing) this.play().catch(leave);
  }

  opened(songId: number): void {
    this.stop();
    this.rest?.cancel();
    this.rack?.dispose();
    this.rest = this.rack = this.engine = this.hands = null;
    this.turns++;
    this.other = null;
    this.versions.clear();
    forgetHearing();
    this.asItStands = fromSong(songId, this.prepare);
    this.asItStands.readClock().catch(leave);
  }

  private readonly prepare = async ({ events }: Stretch): Promise<void> => this.stretched?.ready(events ?? []);

  private get heard(): Played | null {
    return this.other ?? this.asItStands;
  }

  /** Has a version heard in place of the song as it stands; null goes back to that. Playing goes on where it is. */
  async hear(version: VersionEntry | null): Promise<void> {
    const turn = ++this.turns;
    const next = version ? await this.version(version.id) : this.asItStands;
    if (turn !== this.turns || !next || next === this.heard) return;
    await next.stretches.ready(...this.ahead(next));
    if (turn !== this.turns) return;
    this.engine?.tryOut(null);
    const sameTime = this.heard?.clock.sameAs(next.clock);
    this.other = version ? next : null;
    setHearing(version);
    await this.rebuilt();
    if (!transportNow().playing) return;
    this.restDials();
    if (sameTime) this.engine?.renewed();
    else this.seek(transportNow().playhead);
  }

  /** A version as it is played; asked for once. */
  private version(id: number): Promise<Played> {
    const { songId } = song();
    const known = this.versions.get(id) ?? kept(songId as number, id, this.prepare);
    this.versions.set(id, known);
    known.catch(() => this.versions.delete(id));
    return known;
  }

  /** Where what is played has to be ready for playing to go on. */
  private ahead({ stretches }: Played): Ticks[] {
    const { playhead } = transportNow();
    return [playhead, playhead + stretches.blockTicks, song().model.head.range.start_tick];
  }

  /** What is edited is heard. */
  private backToNow(): void {
    if (hearingNow().version) this.hear(null).catch(leave);
  }

  /** @param bars so many are counted in before it begins */
  async play(bars = 0): Promise<void> {
    if (transportNow().playing) return;
    setTransport({ playing: true });
    this.follow();
    const context = await this.ready();
    this.rest?.cancel();
    const tick = transportNow().playhead;
    await Promise.all([this.heard?.stretches.ready(tick, song().model.head.range.start_tick), context.resume()]);
    if (!transportNow().playing) return;
    this.restDials();
    this.engine?.start(tick, bars > 0 ? this.countIn(tick, bars) : undefined);
    if (this.engine && this.rack) this.shown.run(this.engine, this.rack, this.tickAt, this.meter);
  }

  /** So many bars in the time signature and the tempo at a tick. */
  private countIn(tick: Ticks, bars: number): CountIn {
    const { beats, beat_ticks } = meterAt(song().model.head.meters, tick);
    const seconds = this.secondsAt(tick + beat_ticks) - this.secondsAt(tick);
    return { beats: bars * beats, seconds, bar: beats };
  }

  /** Makes ready to sound a note at once, also while nothing plays. */
  async awake(): Promise<void> {
    const context = await this.ready();
    await context.resume();
    if (!transportNow().playing) this.rest?.after(REST_SECONDS.awake);
  }

  /** Sounds a note of a track's instrument from now on, until it is let go; null while the sound is not awake yet. */
  sound(trackId: string, pitch: number, velocity: number): Voice | null {
    const { context, engine, rack } = this;
    if (!context || !engine || !rack || context.state !== "running") return null;
    if (!transportNow().playing) this.restDials();
    const at = context.currentTime;
    const songSeconds = transportNow().playing ? engine.position() : this.secondsAt(transportNow().playhead);
    const sounding = { at, until: at + LONGEST_SECONDS, late: 0, songSeconds, pitch, velocity, into: 0, rate: 1 };
    return rack.instrument(trackId)?.play?.({ ...sounding, lead: at - songSeconds }) ?? null;
  }

  /** The next beats as they will be heard: when, by the browser's clock, and how long each is, in milliseconds. */
  nextBeats(count: number): { at: number; milliseconds: number }[] {
    const now = performance.now();
    const { beat_ticks } = meterAt(song().model.head.meters, transportNow().playhead);
    const place = this.heardAt(now);
    const here = place?.seconds ?? this.secondsAt(transportNow().playhead);
    const first = (Math.floor(this.tickAt(here) / beat_ticks) + 1) * beat_ticks;
    return Array.from({ length: count }, (_, i) => {
      const [from, to] = [0, 1].map((more) => this.secondsAt(first + (i + more) * beat_ticks));
      return { at: now + (from - here) * 1000, milliseconds: (to - from) * 1000 };
    });
  }

  /** Now, in the time of the sound. */
  get now(): number {
    return this.context?.currentTime ?? 0;
  }

  /** Where the song was, as heard, at a moment of the browser's clock; null while nothing plays. */
  heardAt(milliseconds: number): Place | null {
    const { context, engine } = this;
    if (!context || !engine || !transportNow().playing) return null;
    const { contextTime = 0, performanceTime = 0 } = context.getOutputTimestamp();
    if (contextTime > 0 && performanceTime > 0)
      return engine.place(contextTime + (milliseconds - performanceTime) / 1000);
    const late = context.outputLatency || 0;
    return engine.place(context.currentTime - late + (milliseconds - performance.now()) / 1000);
  }

  stop(): void {
    if (!transportNow().playing) return;
    this.stoppedAt = this.heardAt(performance.now());
    this.shown.stop();
    this.engine?.stop();
    this.hands?.letAllGo();
    this.rest?.after(REST_SECONDS.stopped);
    setTransport({ playing: false, glide: null });
    setLevel(0);
    setPeaks({});
  }

  /** A hand turns a parameter: it sounds at once, and nothing else moves it. The value is in the engine's unit. */
  turn(address: string, value: number): void {
    this.hands?.turn(address, value);
  }

  /** A hand lets go: the parameter comes back to what holds, over so many seconds. */
  letGo(address: string, over = 0): void {
    this.hands?.letGo(address, transportNow().playing ? over : 0);
  }

  /** Stops every note at once; what is still to come goes on. */
  hush(): void {
    this.engine?.hush();
  }

  /** The view goes along with the playhead again. */
  follow(): void {
    setView({ follow: true });
  }

  toggle(): void {
    if (transportNow().playing) this.stop();
    else this.play().catch(leave);
  }

  seek(tick: Ticks): void {
    setTransport({ playhead: Math.max(0, Math.round(tick)), glide: null });
    if (!transportNow().playing) return;
    this.engine?.stop();
    this.heard?.stretches.ready(tick).then(() => transportNow().playing && this.engine?.start(tick), leave);
  }

  /** The stretch a preview should bring ramps for; none while nothing plays. */
  stretchInPlay(): { from_tick: Ticks; to_tick: Ticks } | undefined {
    if (!transportNow().playing || !this.asItStands) return undefined;
    const size = this.asItStands.stretches.blockTicks;
    const from = this.asItStands.stretches.blockOf(transportNow().playhead) * size;
    return { from_tick: from, to_tick: from + size };
  }

  tried(preview: Preview): void {
    this.backToNow();
    if (!transportNow().playing || this.other) return;
    if (preview.sound) this.engine?.tryOut(preview.sound);
    if (preview.parts.some(([kind, , record]) => (kind === "track" || kind === "clip") && record))
      this.restDials(preview.parts);
  }

  dropped(): void {
    if (this.other) return;
    this.engine?.tryOut(null);
    if (transportNow().playing) this.restDials();
  }

  /** Goes on with the song as it is now. */
  made(change: Change): void {
    if (change.sound && transportNow().playing && !this.other) this.engine?.tryOut(change.sound);
    this.renew(change.clock_from !== null).catch(leave);
    this.backToNow();
  }

  changed(): void {
    this.renew(true).catch(leave);
  }

  private async renew(clock: boolean): Promise<void> {
    const { asItStands: now } = this;
    if (!now) return;
    if (clock) await now.readClock();
    if (this.other) return now.stretches.renew();
    await this.rebuilt();
    if (!transportNow().playing) return now.stretches.renew();
    await now.stretches.renew(...this.ahead(now));
    if (this.other) return;
    this.restDials();
    this.engine?.renewed();
  }

  secondsAt = (tick: Ticks): number => this.heard?.clock.secondsAt(tick) ?? 0;
  tickAt = (seconds: number): Ticks => this.heard?.clock.tickAt(seconds) ?? 0;

  private async ready(): Promise<AudioContext> {
    this.context ??= new AudioContext({ latencyHint: outputNow().latency });
    await leadOut(this.context);
    this.sounds ??= new Sounds(this.context);
    this.stretched ??= new Stretched(this.sounds.get);
    if (!this.rack) await this.build(this.context, this.sounds);
    return this.context;
  }

  private async build(context: AudioContext, sounds: Sounds): Promise<void> {
    const { catalogue } = song();
    const { heard } = this;
    if (!catalogue || !heard) return;
    const model = heard.model();
    await Promise.all([sounds.load(soundIds(model, catalogue)), loadWorklets(context)]);
    const drumSound = (pitch: number) => sounds.drum(catalogue.drum_sounds[pitch]);
    this.meter = new AnalyserNode(context, { fftSize: 2048 });
    this.meter.connect(context.destination);
    this.rest = new Rest(context, this.meter);
    const drumParts = catalogue.devices["drum-kit"].parts;
    this.rack = new Rack({ context, drumSound, drumParts, soundOf: sounds.get }, catalogue.send_prefix, this.meter);
    this.rack.follow(model);
    this.engine = new Engine(context, this.rack, this.score(heard, sounds), () => this.stop());
    this.hands = new Hands(context, this.rack, this.engine, () => this.restDials());
  }

  private score(first: Played, sounds: Sounds): Score {
    const heard = () => this.heard ?? first;
    return {
      stretches: () => heard().stretches,
      clock: () => heard().clock,
      loop: () => song().model.head.range,
      soundOf: (id) => sounds.get(id),
      stretchedOf: (event) => this.stretched?.get(event),
      click: (at, bar, counted = false) => {
        const { click: when } = playInNow();
        const wanted = counted || when === "playing" || (when === "recording" && performingNow().pass !== null);
        if (wanted && this.context && this.meter) click(this.context, this.meter, at, bar);
      },
      endOfSong: () => {
        const model = heard().model();
        const end = songEnd(model);
        return performingNow().pass !== null
          ? Number.POSITIVE_INFINITY
          : this.secondsAt(end + barTicks(meterAt(model.head.meters, end)));
      },
    };
  }

  /** The graph follows the tracks, piece by piece: what did not change goes on sounding. */
  private async rebuilt(): Promise<void> {
    const { catalogue } = song();
    const { heard } = this;
    if (!this.rack || !this.sounds || !catalogue || !heard) return;
    await this.sounds.load(soundIds(heard.model(), catalogue));
    this.rack.follow((this.heard ?? heard).model());
  }

  /** Lets just those tracks through that are listened to. */
  listening(): void {
    if (this.context) this.rack?.silence(song().preview?.silent ?? song().silent, this.context.currentTime);
  }

  private restDials(trial: Preview["parts"] = []): void {
    const { catalogue } = song();
    const model = this.heard?.model();
    if (!catalogue || !this.context || !model) return;
    const moved = Object.values(model.envelopes).filter(({ acts }) => acts);
    const driven = new Set([...moved.map(({ target }) => target), ...Object.keys(lookup(model).drivers)]);
    this.rack?.rest(catalogue, applyParts(model, trial), (address) => driven.has(address), this.context.currentTime);
    this.listening();
  }
}

export const player = new Player();
