import { songApi } from "../api/client";
import type { Change, Preview, Ticks, TrackPart } from "../api/types";
import { songEnd } from "../state/model";
import { setSong, song } from "../state/store";
import { barTicks } from "../geometry/viewport";
import { Clock } from "./clock";
import { Engine } from "./engine";
import { Rack } from "./rack";
import { Sounds } from "./sounds";
import { Stretches } from "./stretches";

const BLOCK_BARS = 8;

/** What of the tracks the sound graph is made from. */
const wiringOf = (tracks: TrackPart[]): string => tracks.map(({ id, output, devices }) => `${id}>${output}:${devices.map((device) => `${device.id}=${device.type}`).join(",")}`).join(";");

/** The transport: what the rest of the app sees of the sound. */
class Player {
  private context: AudioContext | null = null;
  private sounds: Sounds | null = null;
  private rack: Rack | null = null;
  private engine: Engine | null = null;
  private stretches: Stretches | null = null;
  private clock = new Clock();
  private meter: AnalyserNode | null = null;
  private frame = 0;
  private wiring = "";
  private tempo = "";

  async open(songId: number): Promise<void> {
    this.stop();
    this.rack?.dispose();
    this.rack = this.engine = null;
    this.stretches = new Stretches(songApi(songId), BLOCK_BARS * barTicks(song().model.head.meter));
    await this.readClock();
  }

  async play(): Promise<void> {
    if (song().playing) return;
    setSong({ playing: true });
    const context = await this.ready();
    const tick = song().playhead;
    await Promise.all([this.stretches?.ready(tick, song().model.head.range.start_tick), context.resume()]);
    if (!song().playing) return;
    this.restDials();
    this.engine?.start(tick);
    this.follow();
  }

  stop(): void {
    if (!song().playing) return;
    cancelAnimationFrame(this.frame);
    this.engine?.stop();
    setSong({ playing: false, level: 0 });
  }

  toggle(): void {
    if (song().playing) this.stop();
    else void this.play();
  }

  seek(tick: Ticks): void {
    setSong({ playhead: Math.max(0, Math.round(tick)) });
    if (!song().playing) return;
    this.engine?.stop();
    void this.stretches?.ready(tick).then(() => song().playing && this.engine?.start(tick));
  }

  /** The stretch a preview should bring ramps for; none while nothing plays. */
  stretchInPlay(): { from_tick: Ticks; to_tick: Ticks } | undefined {
    if (!song().playing || !this.stretches) return undefined;
    const size = this.stretches.blockTicks;
    const from = this.stretches.blockOf(song().playhead) * size;
    return { from_tick: from, to_tick: from + size };
  }

  preview(preview: Preview): void {
    if (!song().playing) return;
    if (preview.sound) this.engine?.tryOut(preview.sound);
    for (const [kind, , record] of preview.parts) if (kind === "track" && record) this.restDials(preview.parts);
  }

  dropPreview(): void {
    this.engine?.tryOut(null);
    if (song().playing) this.restDials();
  }

  /** Goes on with the song as it is now. */
  take(change: Change): void {
    if (change.sound && song().playing) this.engine?.tryOut(change.sound);
    void this.songChanged(JSON.stringify(song().model.head.tempo) !== this.tempo);
  }

  async songChanged(head = true): Promise<void> {
    if (head) await this.readClock();
    await this.rebuilt();
    if (!this.stretches) return;
    const { playhead } = song();
    const range = song().model.head.range;
    if (!song().playing) return this.stretches.renew();
    await this.stretches.renew(playhead, playhead + this.stretches.blockTicks, range.start_tick);
    this.restDials();
    this.engine?.renewed();
  }

  secondsAt = (tick: Ticks): number => this.clock.secondsAt(tick);

  private async readClock(): Promise<void> {
    const { songId } = song();
    this.tempo = JSON.stringify(song().model.head.tempo);
    if (songId !== null) this.clock = new Clock((await songApi(songId).clock()).clock);
  }

  private async ready(): Promise<AudioContext> {
    this.context ??= new AudioContext({ latencyHint: "interactive" });
    this.sounds ??= new Sounds(this.context);
    if (!this.rack) await this.build(this.context, this.sounds);
    return this.context;
  }

  private async build(context: AudioContext, sounds: Sounds): Promise<void> {
    const { catalogue, model } = song();
    if (!catalogue || !this.stretches) return;
    await sounds.load(Object.values(catalogue.drum_sounds), Object.values(model.clips));
    const drumSound = (pitch: number) => sounds.drum(catalogue.drum_sounds[pitch]);
    const limiter = new DynamicsCompressorNode(context, { threshold: -3, knee: 2, ratio: 20, attack: 0.002, release: 0.12 });
    this.meter = new AnalyserNode(context, { fftSize: 2048 });
    limiter.connect(this.meter).connect(context.destination);
    this.wiring = wiringOf(model.tracks);
    this.rack = new Rack({ context, drumSound }, model.tracks, catalogue.send_prefix, limiter);
    this.engine = new Engine(
      context,
      this.rack,
      this.stretches,
      () => this.clock,
      () => song().model.head.range,
      (id) => sounds.get(id),
      () => this.clock.secondsAt(songEnd(song().model) + barTicks(song().model.head.meter)),
      () => this.stop(),
    );
  }

  /** The graph follows the tracks: made anew when one comes or goes, or sounds into another. */
  private async rebuilt(): Promise<void> {
    if (!this.context || !this.sounds || !this.rack || this.wiring === wiringOf(song().model.tracks)) return;
    const on = song().playing;
    this.engine?.stop();
    this.rack.dispose();
    await this.build(this.context, this.sounds);
    this.restDials();
    if (on && song().playing) this.engine?.start(song().playhead);
  }

  private restDials(trial: Preview["parts"] = []): void {
    const { catalogue, model } = song();
    if (!catalogue || !this.context) return;
    const tried = new Map(trial.filter(([kind]) => kind === "track").map(([, id, record]) => [id, record]));
    const tracks = model.tracks.map((track) => (tried.get(track.id) as typeof track | undefined) ?? track);
    const driven = new Set(Object.values(model.envelopes).filter((e) => e.acts).map((e) => e.target));
    this.rack?.rest(catalogue, tracks, (address) => driven.has(address), this.context.currentTime);
    this.rack?.silence(song().preview?.silent ?? song().silent, this.context.currentTime);
  }

  /** Moves the playhead with the sound, once a frame. */
  private follow(): void {
    const samples = new Float32Array(2048);
    const look = () => {
      if (!song().playing || !this.engine) return;
      this.meter?.getFloatTimeDomainData(samples);
      const level = samples.reduce((peak, sample) => Math.max(peak, Math.abs(sample)), 0);
      setSong({ level, playhead: Math.floor(this.clock.tickAt(this.engine?.position() ?? 0)) });
      this.frame = requestAnimationFrame(look);
    };
    look();
  }
}

export const player = new Player();
