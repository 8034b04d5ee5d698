import { type Dial, ManyDial, ParamDial } from "./dial";
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

/**
 * A slow sine that is where the song is: with every lap it begins again, at the phase that its rate makes of the second
 * there, so that the same place always sounds the same.
 */
export function sway(context: BaseAudioContext, hertz: number) {
  const output = gain(context, 1);
  const rate = constant(context, hertz);
  const begun = new Begun(hertz);
  let now = started(0, 0);

  function started(phase: number, at: number) {
    const node = oscillator(context, { frequency: 0 });
    const [real, imag] = [new Float32Array([0, Math.sin(phase)]), new Float32Array([0, Math.cos(phase)])];
    node.setPeriodicWave(new PeriodicWave(context, { real, imag, disableNormalization: true }));
    rate.connect(node.frequency);
    const level = gain(context, at > 0 ? 0 : 1);
    node.connect(level).connect(output);
    node.start(at);
    return { node, level };
  }

  function begin(songSeconds: number, at: number): void {
    const [from, to] = [Math.max(context.currentTime, at - OVER_SECONDS - BEFORE_SECONDS), at - BEFORE_SECONDS];
    const before = now;
    now = started(2 * Math.PI * begun.value * (songSeconds - (at - from)), from);
    now.level.gain.setValueAtTime(0, from).linearRampToValueAtTime(1, Math.max(from, to));
    before.level.gain.setValueAtTime(1, from).linearRampToValueAtTime(0, Math.max(from, to));
    before.node.stop(Math.max(from, to) + OVER_SECONDS);
    before.node.onended = () => {
      rate.disconnect(before.node.frequency);
      before.level.disconnect();
    };
  }

  return { output, begin, dial: new ManyDial([new ParamDial([rate.offset]), begun]) };
}
