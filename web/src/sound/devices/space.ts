import { ParamDial } from "../dial";
import { biquad, bypassable, type DeviceSound, gain, mixable } from "../parts";
import { worklet } from "../worklets";
import { through } from "./through";

/** A network of delay lines that dies away in the time it says, which may be moved while it sounds. */
export function reverb(context: BaseAudioContext): DeviceSound {
  const room = worklet(context, "room");
  if (!room) return through(context);
  const line = new DelayNode(context, { maxDelayTime: 0.3 });
  const tone = biquad(context, { type: "lowpass", Q: 0 });
  line.connect(room).connect(tone);
  const whole = mixable(context, line, tone, true);
  return {
    input: whole.input,
    output: whole.output,
    dials: {
      length: new ParamDial([room.parameters.get("length") as AudioParam]),
      predelay: new ParamDial([line.delayTime], undefined, 0.05),
      tone: new ParamDial([tone.frequency]),
      mix: whole.mix,
      bypass: whole.bypass,
    },
  };
}

/** What both sides share stays; what they differ by is made more or less. */
export function width(context: BaseAudioContext): DeviceSound {
  const input = new GainNode(context, { channelCount: 2, channelCountMode: "explicit" });
  const sides = new ChannelSplitterNode(context, { numberOfOutputs: 2 });
  const joined = new ChannelMergerNode(context, { numberOfInputs: 2 });
  const middle = gain(context, 0.5);
  const apart = gain(context, 0.5);
  const spread = gain(context, 1);
  const turned = gain(context, -1);
  const back = gain(context, -1);
  input.connect(sides);
  sides.connect(middle, 0);
  sides.connect(middle, 1);
  sides.connect(apart, 0);
  sides.connect(turned, 1);
  turned.connect(apart);
  apart.connect(spread);
  middle.connect(joined, 0, 0);
  spread.connect(joined, 0, 0);
  middle.connect(joined, 0, 1);
  spread.connect(back).connect(joined, 0, 1);
  const whole = bypassable(context, input, joined);
  return {
    input: whole.input,
    output: whole.output,
    dials: { width: new ParamDial([spread.gain]), bypass: whole.bypass },
  };
}

/** Coarser in level and in time. */
export function crush(context: BaseAudioContext): DeviceSound {
  const node = worklet(context, "crush");
  if (!node) return through(context);
  const whole = mixable(context, node, node);
  const param = (name: string) => new ParamDial([node.parameters.get(name) as AudioParam]);
  return {
    input: whole.input,
    output: whole.output,
    dials: { bits: param("bits"), rate: param("rate"), mix: whole.mix, bypass: whole.bypass },
  };
}
