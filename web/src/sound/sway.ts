import { afterMs, type Dial, ManyDial, ParamDial, SwitchedDial } from "./dial";
import { constant, gain, oscillator } from "./parts";

/** The one before goes over into the next one this long, and this long before it is asked for. */
const OVER_SECONDS = 0.03;
const BEFORE_SECONDS = 0.005;

/** What a dial was put on last, or begins a lap with. */
class Begun implements Dial {
  constructor(public value: number) {}

  follow(): void {}

  replan(_at: number, value: number): void {
    this.value = value;
  }

  rest(value: number): void {
    this.value = value;
  }
}

/** A slow sine, with what fades it in and out. */
interface Swing {
  node: OscillatorNode;
  level: GainNode;
}

/**
 * A slow sine that is where the song is: with every lap it begins again, at the phase that its rate makes of the second
 * there, so that the same place always sounds the same. Without depth it does not run.
 *
 * @param per what comes out at most, by the depth
 */
export function sway(context: BaseAudioContext, hertz: number, per = (depth: number) => depth) {
  const output = gain(context, 0);
  const rate = constant(context, hertz);
  const begun = new Begun(hertz);
  let lap = { songSeconds: 0, at: 0 };
  let now: Swing | null = null;

  function started(at: number): Swing {
    const node = oscillator(context, { frequency: 0 });
    const phase = 2 * Math.PI * begun.value * (lap.songSeconds + at - lap.at);
    const [real, imag] = [new Float32Array([0, Math.sin(phase)]), new Float32Array([0, Math.cos(phase)])];
    node.setPeriodicWave(new PeriodicWave(context, { real, imag, disableNormalization: true }));
    rate.connect(node.frequency);
    const level = gain(context, 1);
    node.connect(level).connect(output);
    node.start(at);
    return { node, level };
  }

  function letGo({ node, level }: Swing): void {
    rate.disconnect(node.frequency);
    level.disconnect();
  }

  function begin(songSeconds: number, at: number): void {
    lap = { songSeconds, at };
    const before = now;
    if (!before) return;
    const from = Math.max(context.currentTime, at - OVER_SECONDS - BEFORE_SECONDS);
    const to = Math.max(from, at - BEFORE_SECONDS);
    now = started(from);
    now.level.gain.setValueAtTime(0, from).linearRampToValueAtTime(1, to);
    before.level.gain.setValueAtTime(1, from).linearRampToValueAtTime(0, to);
    before.node.stop(to + OVER_SECONDS);
    before.node.onended = () => letGo(before);
  }

  function run(on: boolean): void {
    if (now) letGo(now);
    now = on ? started(context.currentTime) : null;
  }

  const depth = new SwitchedDial(new ParamDial([output.gain], per), (share) => share > 0, run, false, afterMs(context));
  return { output, begin, rate: new ManyDial([new ParamDial([rate.offset]), begun]), depth };
}
