import type { ClipPart } from "../api/types";
import { Chain, type Link } from "./chain";
import type { Studio } from "./devices";
import { type Dial, ParamDial } from "./dial";
import { constant, type DeviceSound, gain } from "./parts";

/** The way to a clip's own effects opens and shuts over this long. */
const SWITCH_SECONDS = 0.005;

/**
 * The effects of one clip on its track. While its regions sound, the gate is open: notes lead through them instead of
 * past them. What is recorded is led here by itself, so there the gate only cuts tails.
 */
export class OwnEffects {
  readonly input: GainNode;
  private readonly output: GainNode;
  private readonly gate: ConstantSourceNode;
  private readonly shut: GainNode;
  private readonly chain: Chain;
  private stops = false;

  constructor(
    studio: Studio,
    private readonly clipId: string,
    /** Whether notes come here from an instrument, past which they else go. */
    private readonly past: AudioParam | null,
  ) {
    const { context } = studio;
    this.chain = new Chain(studio, `clip-${clipId}`);
    this.input = gain(context, past ? 0 : 1);
    this.output = gain(context, 1);
    this.gate = constant(context, 0);
    this.shut = gain(context, -1);
    this.gate.connect(this.shut);
    if (past) {
      this.gate.connect(this.input.gain);
      this.shut.connect(past);
    }
  }

  *sounds(): Generator<DeviceSound> {
    for (const [, sound] of this.chain.sounds()) yield sound;
  }

  /** What leads through it, to a goal. */
  links(goal: AudioNode): Link[] {
    const links: Link[] = [];
    let end: AudioNode = this.input;
    for (const { sound } of this.chain.effects()) {
      links.push([end, sound.input as AudioNode]);
      end = sound.output;
    }
    return [...links, [end, this.output], [this.output, goal]];
  }

  differs(clip: ClipPart): boolean {
    return this.chain.differs(clip.devices ?? []);
  }

  take(clip: ClipPart): void {
    this.chain.take(clip.devices ?? []);
    this.chain.hold(clip.devices ?? []);
    const stops = clip.tails === "stop";
    if (stops === this.stops) return;
    this.stops = stops;
    this.output.gain.value = stops ? 0 : 1;
    if (stops) this.gate.connect(this.output.gain);
    else this.gate.disconnect(this.output.gain);
  }

  *dials(): Generator<[string, Dial]> {
    yield [gateOf(this.clipId), new ParamDial([this.gate.offset], undefined, SWITCH_SECONDS)];
    yield* this.chain.dials();
  }

  dispose(): void {
    if (this.past) this.shut.disconnect(this.past);
    this.gate.stop();
  }
}

/** The name under which a clip's gate is driven. */
export const gateOf = (clipId: string): string => `gate/${clipId}`;
