import type { Catalogue, TrackPart } from "../api/types";
import { engineValue, knobValue, parametersOf } from "../state/catalogue";
import type { Studio } from "./devices";
import { type Dial, ParamDial } from "./dial";
import { Meters } from "./meters";
import { type DeviceSound, gain } from "./parts";
import { GATE_SECONDS, Strip } from "./strip";

/** A send that a track has to a return. */
interface Send {
  node: GainNode;
  to: string;
}

/** The sound graph of a song: every track's chain, its sends, and the way to the loudspeaker. */
export class Rack {
  readonly dials = new Map<string, Dial>();
  private readonly strips = new Map<string, Strip>();
  private readonly ways = new Map<string, AudioNode>();
  private readonly sends = new Map<string, Send>();

  private readonly meters: Meters;

  constructor(
    private readonly studio: Studio,
    private readonly prefix: string,
    private readonly destination: AudioNode,
  ) {
    this.meters = new Meters(studio.context);
  }

  instrument(trackId: string): DeviceSound | undefined {
    return this.strips.get(trackId)?.instrument;
  }

  /** Follows the tracks piece by piece: what did not change goes on sounding. Returns whether anything changed. */
  follow(tracks: TrackPart[]): boolean {
    const known = new Set(tracks.map(({ id }) => id));
    const gone = [...this.strips.keys()].filter((id) => !known.has(id));
    for (const id of gone) this.drop(id);
    let changed = gone.length > 0;
    for (const { id, devices } of tracks) {
      const strip = this.strips.get(id) ?? new Strip(this.studio, id);
      if (strip.follow(devices)) changed = true;
      this.strips.set(id, strip);
    }
    for (const track of tracks) {
      if (this.lead(track)) changed = true;
      if (this.send(track, tracks)) changed = true;
    }
    if (!changed) return false;
    this.name();
    this.meters.follow([...this.strips].map(([id, { output }]) => [id, output]));
    return true;
  }

  /** Puts every dial that no ramp drives on its resting value. */
  rest(catalogue: Catalogue, tracks: TrackPart[], driven: (address: string) => boolean, now: number): void {
    for (const track of tracks) {
      for (const placed of parametersOf(catalogue, tracks, track).flatMap((device) => device.list)) {
        if (!driven(placed.address))
          this.dials.get(placed.address)?.rest(engineValue(placed.scale, knobValue(track, placed)), now);
      }
    }
  }

  dispose(): void {
    this.meters.dispose();
    for (const id of [...this.strips.keys()]) this.drop(id);
  }

  /** Shuts the gates of tracks that are muted, or not heard because others are soloed; opens all others. */
  silence(trackIds: string[], now: number): void {
    for (const [id, { output }] of this.strips)
      output.gain.setTargetAtTime(trackIds.includes(id) ? 0 : 1, now, GATE_SECONDS);
  }

  /** The way out of a track: into its group, the master, or to the loudspeaker. */
  private lead(track: TrackPart): boolean {
    const strip = this.strips.get(track.id) as Strip;
    const goal = (track.output && this.strips.get(track.output)?.input) || this.destination;
    const before = this.ways.get(track.id);
    if (before === goal) return false;
    if (before) strip.output.disconnect(before);
    strip.output.connect(goal);
    this.ways.set(track.id, goal);
    return true;
  }

  /** Sends of a track that sounds itself, one to each return. */
  private send(track: TrackPart, tracks: TrackPart[]): boolean {
    if (track.kind !== "notes" && track.kind !== "audio") return false;
    let changed = false;
    for (const { id: to, kind } of tracks) {
      const address = this.sendAddress(track.id, to);
      if (kind !== "return" || this.sends.has(address)) continue;
      const node = gain(this.studio.context, 0);
      (this.strips.get(track.id) as Strip).output.connect(node).connect((this.strips.get(to) as Strip).input);
      this.sends.set(address, { node, to });
      changed = true;
    }
    return changed;
  }

  private sendAddress = (from: string, to: string): string => `${from}/channel/${this.prefix}${to}`;

  private drop(id: string): void {
    this.strips.get(id)?.dispose();
    this.strips.delete(id);
    this.ways.delete(id);
    for (const [address, { node, to }] of this.sends) {
      if (to !== id && !address.startsWith(`${id}/`)) continue;
      node.disconnect();
      this.sends.delete(address);
    }
  }

  /** Every dial by its address. */
  private name(): void {
    this.dials.clear();
    for (const strip of this.strips.values())
      for (const [address, dial] of strip.dials()) this.dials.set(address, dial);
    for (const [address, { node }] of this.sends) this.dials.set(address, new ParamDial([node.gain]));
  }
}
