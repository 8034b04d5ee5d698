import { ParamDial } from "../dial";
import { bypassable, constant, crossfade, type DeviceSound, decibelControl, gain, mixable } from "../parts";

/** Low and high pass side by side; the kind fades between them, so that switching does not click. */
export function filter(context: BaseAudioContext): DeviceSound {
  const input = gain(context, 1);
  const low = new BiquadFilterNode(context, { type: "lowpass" });
  const high = new BiquadFilterNode(context, { type: "highpass" });
  const kind = crossfade(context, 0);
  const sum = gain(context, 1);
  input.connect(low).connect(kind.dry).connect(sum);
  input.connect(high).connect(kind.wet).connect(sum);
  const whole = bypassable(context, input, sum);
  return {
    input: whole.input,
    output: whole.output,
    dials: {
      kind: kind.dial,
      cutoff: new ParamDial([low.frequency, high.frequency]),
      resonance: new ParamDial([low.Q, high.Q]),
      bypass: whole.dial,
    },
  };
}

export function drive(context: BaseAudioContext): DeviceSound {
  const push = gain(context, 0);
  const bend = new WaveShaperNode(context, {
    oversample: "2x",
    curve: Float32Array.from({ length: 2049 }, (_, i) => Math.tanh((i / 1024 - 1) * 2.4)),
  });
  const tone = new BiquadFilterNode(context, { type: "lowpass", Q: 0 });
  const level = gain(context, 0.55);
  push.connect(bend).connect(tone).connect(level);
  const whole = mixable(context, push, level);
  return {
    input: whole.input,
    output: whole.output,
    dials: {
      amount: decibelControl(context, 36, push.gain),
      tone: new ParamDial([tone.frequency]),
      mix: whole.mix,
      bypass: whole.bypass,
    },
  };
}

export function chorus(context: BaseAudioContext): DeviceSound {
  const input = gain(context, 1);
  const output = gain(context, 0.8);
  const sway = new OscillatorNode(context, { frequency: 0.6 });
  sway.start();
  const depth = gain(context, 0);
  sway.connect(depth);
  const turned = gain(context, -1);
  depth.connect(turned);
  [depth, turned].forEach((swing, side) => {
    const line = new DelayNode(context, { delayTime: 0.014 + side * 0.005, maxDelayTime: 0.1 });
    swing.connect(line.delayTime);
    input
      .connect(line)
      .connect(new StereoPannerNode(context, { pan: side === 0 ? -0.7 : 0.7 }))
      .connect(output);
  });
  const whole = mixable(context, input, output);
  return {
    input: whole.input,
    output: whole.output,
    dials: {
      rate: new ParamDial([sway.frequency]),
      depth: new ParamDial([depth.gain], (share) => share * 0.008),
      mix: whole.mix,
      bypass: whole.bypass,
    },
  };
}

export function delay(context: BaseAudioContext): DeviceSound {
  const line = new DelayNode(context, { maxDelayTime: 2.1 });
  const tone = new BiquadFilterNode(context, { type: "lowpass", Q: 0 });
  const again = gain(context, 0);
  line.connect(tone).connect(again).connect(line);
  const whole = mixable(context, line, tone);
  return {
    input: whole.input,
    output: whole.output,
    dials: {
      time: new ParamDial([line.delayTime], undefined, 0.05),
      feedback: new ParamDial([again.gain]),
      tone: new ParamDial([tone.frequency]),
      mix: whole.mix,
      bypass: whole.bypass,
    },
  };
}

/** A room made of noise that dies away; the same noise every time. */
function room(context: BaseAudioContext, seconds: number): AudioBuffer {
  const frames = Math.max(1, Math.round(seconds * context.sampleRate));
  const buffer = new AudioBuffer({ length: frames, sampleRate: context.sampleRate, numberOfChannels: 2 });
  let seed = 9;
  for (let channel = 0; channel < 2; channel++) {
    const samples = buffer.getChannelData(channel);
    for (let i = 0; i < frames; i++) {
      seed = (Math.imul(seed, 1664525) + 1013904223) | 0;
      samples[i] = (seed / 2147483648) * 10 ** ((-3 * i) / frames) * Math.min(1, i / 200);
    }
  }
  return buffer;
}

export function reverb(context: BaseAudioContext): DeviceSound {
  const line = new DelayNode(context, { maxDelayTime: 0.3 });
  const tone = new BiquadFilterNode(context, { type: "lowpass", Q: 0 });
  const space = new ConvolverNode(context);
  let length = 0;
  line.connect(space).connect(tone);
  const whole = mixable(context, line, tone);
  const rest = (seconds: number) => {
    if (Math.abs(seconds - length) <= 1e-6) return;
    length = seconds;
    space.buffer = room(context, length);
  };
  return {
    input: whole.input,
    output: whole.output,
    dials: {
      length: { follow: () => {}, replan: () => {}, rest },
      predelay: new ParamDial([line.delayTime], undefined, 0.05),
      tone: new ParamDial([tone.frequency]),
      mix: whole.mix,
      bypass: whole.bypass,
    },
  };
}

/** The end of a chain: mute, volume, pan. Sends are hung on by the rack. */
export function channel(context: BaseAudioContext): DeviceSound {
  const volume = gain(context, 1);
  const mute = gain(context, 1);
  const pan = new StereoPannerNode(context);
  const muted = constant(context, 0);
  muted.connect(gain(context, -1)).connect(mute.gain);
  volume.connect(mute).connect(pan);
  return {
    input: volume,
    output: pan,
    dials: { volume: new ParamDial([volume.gain]), mute: new ParamDial([muted.offset]), pan: new ParamDial([pan.pan]) },
  };
}
