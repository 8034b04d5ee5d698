import { ParamDial } from "../dial";
import { bypassable, constant, type DeviceSound, decibelControl, gain } from "../parts";
import { worklet } from "../worklets";
import { through } from "./through";

/** Louder or softer, and turned over. */
export function level(context: BaseAudioContext): DeviceSound {
  const volume = gain(context, 0);
  const turn = gain(context, 1);
  const flip = constant(context);
  flip.connect(gain(context, -2)).connect(turn.gain);
  volume.connect(turn);
  const whole = bypassable(context, volume, turn);
  return {
    input: whole.input,
    output: whole.output,
    dials: {
      level: decibelControl(context, 24, volume.gain),
      flip: new ParamDial([flip.offset]),
      bypass: whole.bypass,
    },
  };
}

/** A level and a place between the sides that are there to be moved, each as deep as is said. */
export function tremolo(context: BaseAudioContext): DeviceSound {
  const volume = gain(context, 1);
  const panner = new StereoPannerNode(context);
  const swell = constant(context, 1);
  const place = constant(context);
  const depth = gain(context, 0);
  const width = gain(context, 0);
  swell.connect(depth);
  constant(context, -1).connect(depth);
  depth.connect(volume.gain);
  place.connect(width).connect(panner.pan);
  volume.connect(panner);
  const whole = bypassable(context, volume, panner);
  return {
    input: whole.input,
    output: whole.output,
    dials: {
      level: new ParamDial([swell.offset]),
      depth: new ParamDial([depth.gain]),
      place: new ParamDial([place.offset]),
      width: new ParamDial([width.gain]),
      bypass: whole.bypass,
    },
  };
}

/** Loud parts are turned down by the ratio, as fast and for as long as is said. */
export function compressor(context: BaseAudioContext): DeviceSound {
  const press = worklet(context, "press");
  if (!press) return through(context);
  const after = gain(context, 0);
  press.connect(after);
  const whole = bypassable(context, press, after);
  const param = (name: string) => new ParamDial([press.parameters.get(name) as AudioParam]);
  return {
    input: whole.input,
    output: whole.output,
    dials: {
      threshold: param("threshold"),
      ratio: param("ratio"),
      attack: param("attack"),
      release: param("release"),
      makeup: decibelControl(context, 24, after.gain),
      bypass: whole.bypass,
    },
  };
}
