import { backwards } from "../backwards";
import { NoteDial, ParamDial, valueAt } from "../dial";
import { biquad, type DeviceSound, gain, type Sounding, tuning } from "../parts";

const BREAK_SECONDS = 0.012;

export function loopPlayer(context: BaseAudioContext): DeviceSound {
  const level = gain(context, 1);
  const tone = biquad(context, { type: "lowpass", Q: 0 });
  const { detune, bend, pitch } = tuning(context);
  const turn = new NoteDial(0);
  level.connect(tone);

  function play(sounding: Sounding) {
    const { at, until, late, songSeconds, buffer, rate, rates, lead, through } = sounding;
    if (!buffer) return null;
    const back = sounding.backwards ?? false;
    const into = back ? buffer.duration - sounding.into : sounding.into;
    const edge = gain(context, 0);
    const source = new AudioBufferSourceNode(context, {
      buffer: turn.at(songSeconds) >= 0.5 !== back ? backwards(buffer) : buffer,
      playbackRate: rate,
    });
    detune.connect(source.detune);
    edge.gain.linearRampToValueAtTime(0, at);
    edge.gain.linearRampToValueAtTime(1, at + 0.003);
    const stop = (when: number) => {
      edge.gain.cancelScheduledValues(when);
      edge.gain.setTargetAtTime(0, when, BREAK_SECONDS / 3);
      source.stop(when + BREAK_SECONDS * 3);
    };
    source.connect(edge).connect(through ?? level);
    source.start(at, into + (rates ? travelled(rates, songSeconds - late, songSeconds) : late * rate));
    if (rates) speedUp(source.playbackRate, rates, at, lead);
    stop(until);
    source.onended = () => {
      edge.disconnect();
      detune.disconnect(source.detune);
    };
    return { stop };
  }

  return {
    output: tone,
    entry: level,
    play,
    dials: {
      backwards: turn,
      bend,
      pitch,
      tone: new ParamDial([tone.frequency]),
      gain: new ParamDial([level.gain]),
    },
  };
}

/** How far a sound gets from one second of the song to another, by speeds that go straight between their corners. */
export function travelled(rates: number[], from: number, to: number): number {
  let sum = 0;
  for (let i = 0; i + 3 < rates.length; i += 2) {
    const [start, end] = [Math.max(rates[i], from), Math.min(rates[i + 2], to)];
    if (end > start) sum += ((end - start) * (valueAt(rates, start) + valueAt(rates, end - 1e-9))) / 2;
  }
  return sum;
}

/** Lets the speed follow its corners from a moment of context time on. */
function speedUp(param: AudioParam, rates: number[], at: number, lead: number): void {
  param.setValueAtTime(valueAt(rates, at - lead), at);
  for (let i = 0; i < rates.length; i += 2) {
    const when = rates[i] + lead;
    if (when > at) param.linearRampToValueAtTime(rates[i + 1], when);
  }
}
