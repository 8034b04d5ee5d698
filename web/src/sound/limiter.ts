import { type Dial, ParamDial } from "./dial";
import { gain } from "./parts";
import { worklet } from "./worklets";

/** How long what goes through is kept back, so that the limiter sees it coming. */
const AHEAD_SECONDS = 0.002;

/** The limiter after everything, which the master's channel switches and sets. */
export class Limiter {
  readonly input: AudioNode;
  readonly output: AudioNode;
  /** By how much what is heard comes later. */
  readonly latency: number;
  readonly dials: [string, Dial][];

  constructor(context: BaseAudioContext) {
    const node = worklet(context, "limit");
    this.input = this.output = node ?? gain(context, 1);
    this.latency = node ? Math.round(AHEAD_SECONDS * context.sampleRate) / context.sampleRate : 0;
    const param = (name: string) => new ParamDial([node?.parameters.get(name) as AudioParam]);
    this.dials = node
      ? [
          ["limiter", param("on")],
          ["ceiling", param("ceiling")],
        ]
      : [];
  }
}
