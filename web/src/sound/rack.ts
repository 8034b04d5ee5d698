import type { Catalogue, TrackPart } from "../api/types";
import { engineValue, knobValue, parametersOf } from "../state/catalogue";
import { DEVICE_SOUNDS, type Studio } from "./devices";
import { type Dial, ParamDial } from "./dial";
import { type DeviceSound, gain } from "./parts";

/** Fast enough to be at once, slow enough not to click. */
const GATE_SECONDS = 0.006;

/** The sound graph of a song: every track's chain, its sends, and the way to the loudspeaker. */
export class Rack {
  readonly dials = new Map<string, Dial>();
  private readonly instruments = new Map<string, DeviceSound>();
  private readonly inputs = new Map<string, AudioNode>();
  private readonly outputs = new Map<string, AudioNode>();
  /** After each chain: shut while a track is not listened to. */
  private readonly gates = new Map<string, GainNode>();

  constructor(studio: Studio, tracks: TrackPart[], prefix: string, destination: AudioNode) {
    for (const track of tracks) this.addTrack(studio, track);
    for (const track of tracks) {
      const output = this.outputs.get(track.id) as AudioNode;
      output.connect((track.output && this.inputs.get(track.output)) || destination);
      if (track.kind === "notes" || track.kind === "audio") this.addSends(studio, track, tracks, prefix, output);
    }
  }

  instrument(trackId: string): DeviceSound | undefined {
    return this.instruments.get(trackId);
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
    for (const output of this.outputs.values()) output.disconnect();
  }

  /** Shuts the gates of tracks that are muted, or not heard because others are soloed; opens all others. */
  silence(trackIds: string[], now: number): void {
    for (const [id, gate] of this.gates) gate.gain.setTargetAtTime(trackIds.includes(id) ? 0 : 1, now, GATE_SECONDS);
  }

  private addTrack(studio: Studio, track: TrackPart): void {
    const input = gain(studio.context, 1);
    let end: AudioNode = input;
    for (const device of track.devices) {
      const sound = DEVICE_SOUNDS[device.type](studio);
      if (sound.play) this.instruments.set(track.id, sound);
      if (sound.input) end.connect(sound.input);
      end = sound.output;
      for (const [id, dial] of Object.entries(sound.dials)) this.dials.set(`${track.id}/${device.id}/${id}`, dial);
    }
    const gate = gain(studio.context, 1);
    end.connect(gate);
    this.inputs.set(track.id, input);
    this.gates.set(track.id, gate);
    this.outputs.set(track.id, gate);
  }

  private addSends(studio: Studio, track: TrackPart, tracks: TrackPart[], prefix: string, output: AudioNode): void {
    for (const to of tracks.filter((other) => other.kind === "return")) {
      const send = gain(studio.context, 0);
      output.connect(send).connect(this.inputs.get(to.id) as AudioNode);
      this.dials.set(`${track.id}/channel/${prefix}${to.id}`, new ParamDial([send.gain]));
    }
  }
}
