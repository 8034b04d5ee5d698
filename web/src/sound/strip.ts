import type { TrackPart } from "../api/types";
import { DEVICE_SOUNDS, type Studio } from "./devices";
import { through } from "./devices/through";
import type { Dial } from "./dial";
import { type Crossfade, crossfade, type DeviceSound, gain } from "./parts";

/** Fast enough to be at once, slow enough not to click. */
export const GATE_SECONDS = 0.006;

interface Placed {
  type: string;
  sound: DeviceSound;
}

/** One track of the sound graph: an input, its chain, and a gate that is shut while it is not listened to. */
export class Strip {
  readonly input: GainNode;
  readonly output: GainNode;
  /** Around all effects of the chain. */
  private readonly effects: Crossfade;
  private devices = new Map<string, Placed>();
  private order: string[] = [];

  constructor(
    private readonly studio: Studio,
    private readonly trackId: string,
  ) {
    this.input = gain(studio.context, 1);
    this.output = gain(studio.context, 1);
    this.effects = crossfade(studio.context, 1);
    this.input.connect(this.output);
  }

  get instrument(): DeviceSound | undefined {
    return [...this.devices.values()].find(({ sound }) => sound.play)?.sound;
  }

  /** Dials by address. */
  *dials(): Generator<[string, Dial]> {
    yield [`${this.trackId}/channel/effects`, this.effects.dial];
    for (const [id, { sound }] of this.devices)
      for (const [name, dial] of Object.entries(sound.dials)) yield [`${this.trackId}/${id}/${name}`, dial];
  }

  /**
   * Follows the track's chain: what stays goes on sounding, what is new comes in, what is gone goes out. All of it is
   * taken up at one moment of the output, so that there is no gap. Returns whether anything changed.
   */
  follow(chain: TrackPart["devices"]): boolean {
    const order = chain.map(({ id }) => id);
    const same = order.length === this.order.length && order.every((id, i) => id === this.order[i]);
    if (same && chain.every(({ id, type }) => this.devices.get(id)?.type === type)) return false;
    const before = this.nodes();
    const next = new Map(chain.map(({ id, type }) => [id, this.placed(id, type)]));
    this.devices = next;
    this.order = order;
    const after = this.nodes();
    unlink(before);
    link(after);
    return true;
  }

  dispose(): void {
    this.output.disconnect();
  }

  private placed(id: string, type: string): Placed {
    const known = this.devices.get(id);
    return known?.type === type ? known : { type, sound: soundOf(type, this.studio) };
  }

  /** What hangs together, from the input to the output: before the channel all effects, or none, by one switch. */
  private nodes(): [AudioNode, AudioNode][] {
    const links: [AudioNode, AudioNode][] = [];
    const { wet, dry } = this.effects;
    let end: AudioNode = this.instrument?.output ?? this.input;
    links.push([end, dry]);
    for (const id of this.order) {
      const { sound, type } = this.devices.get(id) as Placed;
      if (!sound.input) continue;
      if (type !== "channel") links.push([end, sound.input]);
      else links.push([end, wet], [wet, sound.input], [dry, sound.input]);
      end = sound.output;
    }
    links.push([end, this.output]);
    return links;
  }
}

/** What this version does not know lets everything through as it is. */
function soundOf(type: string, studio: Studio): DeviceSound {
  const make = DEVICE_SOUNDS[type];
  if (make) return make(studio);
  return through(studio.context);
}

const link = (links: [AudioNode, AudioNode][]): void => {
  for (const [from, to] of links) from.connect(to);
};

/** What was linked before is linked no more; where nothing was, nothing is done. */
const unlink = (links: [AudioNode, AudioNode][]): void => {
  for (const [from, to] of links)
    try {
      from.disconnect(to);
    } catch {
      // It was not linked yet.
    }
};
