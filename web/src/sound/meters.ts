import { gain } from "./parts";

/** The levels of all tracks, taken by one processor after their gates. */
export class Meters {
  private node: AudioWorkletNode | null = null;
  private sources: AudioNode[] = [];
  /** The loudest of each track since it was last told. */
  latest: Record<string, number> = {};

  constructor(private readonly context: BaseAudioContext) {}

  /** Listens to these tracks from now on. */
  follow(tracks: [id: string, output: AudioNode][]): void {
    this.dispose();
    if (!this.context.audioWorklet || tracks.length === 0 || this.context instanceof OfflineAudioContext) return;
    const ids = tracks.map(([id]) => id);
    const node = new AudioWorkletNode(this.context, "meter", {
      numberOfInputs: tracks.length,
      numberOfOutputs: 1,
      processorOptions: {},
    });
    for (const [i, [, output]] of tracks.entries()) output.connect(node, 0, i);
    node.connect(gain(this.context, 0)).connect(this.context.destination);
    node.port.onmessage = ({ data }: MessageEvent<Float32Array>) => {
      this.latest = Object.fromEntries(ids.map((id, i) => [id, data[i]]));
    };
    this.node = node;
    this.sources = tracks.map(([, output]) => output);
  }

  dispose(): void {
    const { node } = this;
    if (!node) return;
    for (const source of this.sources) source.disconnect(node);
    node.port.onmessage = null;
    node.disconnect();
    this.node = null;
    this.sources = [];
    this.latest = {};
  }
}
