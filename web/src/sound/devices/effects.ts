import { ParamDial } from "../dial";
import { biquad, type DeviceSound, decibelControl, gain, mixable } from "../parts";
import { sway } from "../sway";

export function drive(context: BaseAudioContext): DeviceSound {
  const push = gain(context, 0);
  const bend = new WaveShaperNode(context, {
    oversample: "2x",
    curve: Float32Array.from({ length: 2049 }, (_, i) => Math.tanh((i / 1024 - 1) * 2.4)),
  });
  const tone = biquad(context, { type: "lowpass", Q: 0 });
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
  const swing = sway(context, 0.6, (share) => share * 0.008);
  const turned = gain(context, -1);
  swing.output.connect(turned);
  [swing.output, turned].forEach((way, side) => {
    const line = new DelayNode(context, { delayTime: 0.014 + side * 0.005, maxDelayTime: 0.1 });
    way.connect(line.delayTime);
    input
      .connect(line)
      .connect(new StereoPannerNode(context, { pan: side === 0 ? -0.7 : 0.7 }))
      .connect(output);
  });
  const whole = mixable(context, input, output);
  return {
    input: whole.input,
    output: whole.output,
    begin: swing.begin,
    dials: {
      rate: swing.rate,
      depth: swing.depth,
      mix: whole.mix,
      bypass: whole.bypass,
    },
  };
}

/** The end of a chain: mute, volume, pan. Sends are hung on by the rack; those before the chain follow its fader. */
export function channel(context: BaseAudioContext): DeviceSound {
  const amp = gain(context, 1);
  const heard = gain(context, 1);
  const pan = new StereoPannerNode(context);
  amp.connect(heard).connect(pan);
  const volume = new ParamDial([amp.gain]);
  const mute = new ParamDial([heard.gain], (muted) => 1 - muted);
  return { input: amp, output: pan, fader: { volume, mute }, dials: { volume, mute, pan: new ParamDial([pan.pan]) } };
}
