import type { Catalogue, ClipPart, TrackPart } from "../api/types";
import {
  chainId,
  type DeviceEntry,
  engineValue,
  knobValue,
  type Owner,
  parametersOf,
  parametersOfClip,
  trackOf,
} from "../state/catalogue";
import type { Model } from "../state/model";
import type { Studio } from "./devices";
import { type Dial, ParamDial } from "./dial";
import { Limiter } from "./limiter";
import { Meters } from "./meters";
import { constant, type DeviceSound } from "./parts";
import { Sends } from "./sends";
import { BEAT, STEPS } from "./stretches";
import { Strip } from "./strip";
import { arrivals, Wire } from "./wire";

/** A quarter note at 120 BPM, until the song says otherwise. */
const USUAL_BEAT_SECONDS = 0.5;

/** The sound graph of a song: every track's chain, its sends, and the way to the loudspeaker. */
export class Rack {
  readonly dials = new Map<string, Dial>();
  /** By how much later than asked for everything is heard. */
  latency = 0;
  private readonly studio: Studio;
  private readonly strips = new Map<string, Strip>();
  private readonly ways = new Map<string, Wire>();
  private readonly sends: Sends;
  private readonly limiter: Limiter;
  private readonly beat: ConstantSourceNode;
  private readonly meters: Meters;
  private masterId = "";
  private late = new Map<string, { into: number; out: number }>();
  /** Parameters that a hand holds: nothing else turns their dials. */
  private readonly gripped = new Set<string>();

  constructor(
    studio: Omit<Studio, "beat">,
    prefix: string,
    private readonly destination: AudioNode,
  ) {
    this.beat = constant(studio.context, USUAL_BEAT_SECONDS);
    this.studio = { ...studio, beat: this.beat };
    this.meters = new Meters(studio.context);
    this.sends = new Sends(studio.context, prefix);
    this.limiter = new Limiter(studio.context);
    this.limiter.output.connect(destination);
  }

  instrument(trackId: string): DeviceSound | undefined {
    return this.strips.get(trackId)?.instrument;
  }

  /** What comes out of a track, after its fader and gate. */
  output(trackId: string): AudioNode | undefined {
    return this.strips.get(trackId)?.output;
  }

  /** By how much later than asked for a track comes out. */
  lateness(trackId: string): number {
    return this.late.get(trackId)?.out ?? 0;
  }

  /** Until all that is made of something that has to come has come. */
  async ready(): Promise<void> {
    await Promise.all(this.sounds().map(({ ready }) => ready));
  }

  /** A lap begins at a second of the song, at a moment of the output. */
  begin(songSeconds: number, at: number): void {
    for (const { begin } of this.sounds()) begin?.(songSeconds, at);
  }

  /** Those that have to be told, moment by moment, where time does not go by itself. */
  speakers(): DeviceSound[] {
    return this.sounds().filter(({ speak }) => speak);
  }

  private sounds(): DeviceSound[] {
    return [...this.strips.values()].flatMap((strip) => [...strip.sounds()]);
  }

  /** Where what is recorded in a clip goes first, when that has effects of its own. */
  entry(trackId: string, clipId: string): AudioNode | undefined {
    return this.strips.get(trackId)?.entry(clipId);
  }

  /** Follows the tracks piece by piece: what did not change goes on sounding. Returns whether anything changed. */
  follow(model: Model): boolean {
    const { tracks } = model;
    const chains = chainsByTrack(model);
    const known = new Set(tracks.map(({ id }) => id));
    const gone = [...this.strips.keys()].filter((id) => !known.has(id));
    for (const id of gone) this.drop(id);
    let changed = gone.length > 0;
    for (const { id, devices } of tracks) {
      const strip = this.strips.get(id) ?? new Strip(this.studio, id);
      if (strip.follow(devices, chains.get(id) ?? [])) changed = true;
      this.strips.set(id, strip);
    }
    for (const track of tracks) if (this.lead(track)) changed = true;
    if (this.sends.follow(tracks, this.strips)) changed = true;
    if (!changed) return false;
    this.masterId = tracks.find(({ kind }) => kind === "master")?.id ?? "";
    this.inStep(tracks);
    this.name();
    this.meters.follow([...this.strips].map(([id, { output }]) => [id, output]));
    return true;
  }

  /** Puts every dial that no ramp drives on its resting value. */
  rest(catalogue: Catalogue, { tracks, clips }: Model, driven: (address: string) => boolean, now: number): void {
    const put = (owner: Owner, devices: DeviceEntry[]) => {
      for (const placed of devices.flatMap((device) => device.list))
        if (!driven(placed.address) && !this.gripped.has(placed.address))
          this.dials.get(placed.address)?.rest(engineValue(placed.scale, knobValue(owner, placed)), now);
    };
    for (const track of tracks) put(track, parametersOf(catalogue, tracks, track));
    for (const clip of Object.values(clips)) if (clip.devices?.length) put(clip, parametersOfClip(catalogue, clip));
  }

  /** A hand turns a dial, at once, and holds it; the value is in the engine's unit. */
  grip(address: string, value: number, now: number): void {
    this.gripped.add(address);
    this.dials.get(address)?.rest(value, now);
  }

  letGo(address: string): void {
    this.gripped.delete(address);
  }

  /** A dial, for what the song does; none while a hand holds it. */
  planned(address: string): Dial | undefined {
    return this.gripped.has(address) ? undefined : this.dials.get(address);
  }

  /** The loudest of each track lately. */
  get peaks(): Record<string, number> {
    return this.meters.latest;
  }

  /** Lets everything through that steps hold back, while nothing plays. */
  open(now: number): void {
    for (const [address, dial] of this.dials) if (address.endsWith(`/${STEPS}`)) dial.rest(1, now);
  }

  dispose(): void {
    this.meters.dispose();
    this.limiter.output.disconnect(this.destination);
    for (const id of [...this.strips.keys()]) this.drop(id);
  }

  /** Shuts the gates of tracks that are muted, or not heard because others are soloed; opens all others. */
  silence(trackIds: string[], now: number): void {
    const open = (id: string) => (trackIds.includes(id) ? 0 : 1);
    for (const [id, { gate }] of this.strips) gate.rest(open(id), now);
    this.sends.silence(open, now);
  }

  /** The way out of a track: into its group, the master, or to the loudspeaker. */
  private lead(track: TrackPart): boolean {
    const strip = this.strips.get(track.id) as Strip;
    const goal = (track.output && this.strips.get(track.output)?.input) || this.limiter.input;
    const before = this.ways.get(track.id);
    if (before?.to === goal) return false;
    before?.cut();
    this.ways.set(track.id, new Wire(strip.output, goal));
    return true;
  }

  /** Lets ways wait for those on which a device comes late. */
  private inStep(tracks: TrackPart[]): void {
    const times = arrivals(tracks, (id) => this.strips.get(id)?.latency ?? 0);
    this.late = times;
    const at = (id: string) => times.get(id) ?? { into: 0, out: 0 };
    for (const { id, output } of tracks)
      this.ways.get(id)?.wait(output ? Math.max(0, at(output).into - at(id).out) : 0);
    this.sends.inStep(
      (from, to) => at(to).into - at(from).out,
      (to) => at(to).into,
    );
    this.latency = at(this.masterId).out + this.limiter.latency;
  }

  private drop(id: string): void {
    this.ways.get(id)?.cut();
    this.sends.drop(id);
    this.strips.get(id)?.dispose();
    this.strips.delete(id);
    this.ways.delete(id);
  }

  /** Every dial by its address. */
  private name(): void {
    this.dials.clear();
    for (const strip of this.strips.values())
      for (const [address, dial] of strip.dials()) this.dials.set(address, dial);
    for (const [address, dial] of this.sends.dials()) this.dials.set(address, dial);
    for (const [name, dial] of this.limiter.dials) this.dials.set(`${this.masterId}/channel/${name}`, dial);
    this.dials.set(BEAT, new ParamDial([this.beat.offset]));
  }
}

/** Clips with effects of their own, by the track they sound on. */
function chainsByTrack(model: Model): Map<string, ClipPart[]> {
  const found = new Map<string, ClipPart[]>();
  for (const clip of Object.values(model.clips)) {
    if (!clip.devices?.length) continue;
    const trackId = trackOf(model, `${chainId(clip)}/`);
    found.set(trackId, [...(found.get(trackId) ?? []), clip]);
  }
  return found;
}
