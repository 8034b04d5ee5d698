import { keptSound, soundPath } from "../api/kept";
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

  async load(ids: string[]): Promise<void> {
    await Promise.all(ids.filter((id) => !this.buffers.has(id)).map((id) => this.fetch(id)));
  }

  private async fetch(id: string): Promise<void> {
    const response = await fetch(soundPath(id)).catch(async (error) => {
      const kept = await keptSound(id);
      if (kept) return kept;
      throw error;
    });
    if (!response.ok) return tell("fault", `The sound ${id} is missing; its clips stay silent.`);
    this.buffers.set(id, await this.context.decodeAudioData(await response.arrayBuffer()));
  }
}
