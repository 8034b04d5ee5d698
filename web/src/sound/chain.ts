import type { TrackPart } from "../api/types";
import { DEVICE_SOUNDS, type Studio } from "./devices";
import { through } from "./devices/through";
import type { Dial } from "./dial";
import type { DeviceSound } from "./parts";

interface Placed {
  type: string;
  sound: DeviceSound;
}

/** What leads from one node to another. */
export type Link = [from: AudioNode, to: AudioNode];

/** The devices of a chain, in order; those that stay go on as they are when the chain is changed. */
export class Chain {
  private devices = new Map<string, Placed>();

  constructor(
    private readonly studio: Studio,
    private readonly id: string,
  ) {}

  /** Whether other devices would stand here, or in another order. */
  differs(list: TrackPart["devices"]): boolean {
    const now = [...this.devices];
    return now.length !== list.length || now.some(([id, { type }], i) => id !== list[i].id || type !== list[i].type);
  }

  /** Settings that are no dials. */
  hold(list: TrackPart["devices"]): void {
    for (const device of list) this.devices.get(device.id)?.sound.hold?.(device);
  }

  /** By how many seconds what comes out is later. */
  get latency(): number {
    return [...this.devices.values()].reduce((sum, { sound }) => sum + (sound.latency ?? 0), 0);
  }

  /** Every device by its id. */
  *sounds(): Generator<[string, DeviceSound]> {
    for (const [id, { sound }] of this.devices) yield [id, sound];
  }

  take(list: TrackPart["devices"]): void {
    this.devices = new Map(list.map(({ id, type }) => [id, this.placed(id, type)]));
  }

  get instrument(): DeviceSound | undefined {
    return [...this.devices.values()].find(({ sound }) => sound.play)?.sound;
  }

  /** Devices that let sound through, in order. */
  effects(): Placed[] {
    return [...this.devices.values()].filter(({ sound }) => sound.input);
  }

  /** Dials by address. */
  *dials(): Generator<[string, Dial]> {
    for (const [id, { sound }] of this.devices)
      for (const [name, dial] of Object.entries(sound.dials)) yield [`${this.id}/${id}/${name}`, dial];
  }

  private placed(id: string, type: string): Placed {
    const known = this.devices.get(id);
    return known?.type === type ? known : { type, sound: soundOf(type, this.studio) };
  }
}

/** What this version does not know lets everything through as it is. */
function soundOf(type: string, studio: Studio): DeviceSound {
  const make = DEVICE_SOUNDS[type];
  if (make) return make(studio);
  return through(studio.context);
}

/**
 * Other links in the place of those that were, all at one moment of the output, so that there is no gap; what is linked
 * in both stays so.
 */
export function relink(before: Link[], after: Link[]): void {
  const same = (one: Link, list: Link[]) => list.some(([from, to]) => from === one[0] && to === one[1]);
  for (const link of before) if (!same(link, after)) link[0].disconnect(link[1]);
  for (const link of after) if (!same(link, before)) link[0].connect(link[1]);
}
