import type { Model } from "../state/model";
import { tell } from "../state/notice";

/** The recorded sounds of a song, fetched and decoded once. */
export class Sounds {
  private readonly buffers = new Map<string, AudioBuffer>();

  constructor(private readonly context: BaseAudioContext) {}

  get = (id: string): AudioBuffer | undefined => this.buffers.get(id);

  drum(id: string | undefined): { id: string; buffer: AudioBuffer } | null {
    const buffer = id && this.buffers.get(id);
    return id && buffer ? { id, buffer } : null;
  }

  async load(drums: string[], { tracks, clips }: Model): Promise<void> {
    const all = Object.values(clips);
    const devices = [...tracks, ...all].flatMap((owner) => owner.devices ?? []);
    const sampled = devices.flatMap(({ sound }) => sound ?? []);
    const ids = new Set([...drums, ...sampled, ...all.flatMap((clip) => clip.audio?.sound ?? [])]);
    await Promise.all([...ids].filter((id) => !this.buffers.has(id)).map((id) => this.fetch(id)));
  }

  private async fetch(id: string): Promise<void> {
    const response = await fetch(`/sounds/${id}.wav`);
    if (!response.ok) return tell("fault", `The sound ${id} is missing; its clips stay silent.`);
    this.buffers.set(id, await this.context.decodeAudioData(await response.arrayBuffer()));
  }
}
