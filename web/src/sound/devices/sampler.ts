import { NoteDial, ParamDial } from "../dial";
import { biquad, type DeviceSound, gain, type Sounding, tuning } from "../parts";
import type { Studio } from "./index";

const BREAK_SECONDS = 0.012;
/** The shortest stretch of a sound that is played. */
const SHORTEST_SECONDS = 0.001;

/** Plays one sound of the store at the pitch of each note. */
export function sampler({ context, soundOf }: Studio): DeviceSound {
  const filter = biquad(context, { type: "lowpass", Q: 0 });
  const level = gain(context, 1);
  level.connect(filter);
  const { detune, ...tuned } = tuning(context);
  let sound: string | undefined;
  const read = {
    root: new NoteDial(60),
    start: new NoteDial(0),
    end: new NoteDial(1),
    loop: new NoteDial(0),
    "loop-start": new NoteDial(0),
    attack: new NoteDial(0.002),
    decay: new NoteDial(0.3),
    sustain: new NoteDial(1),
    release: new NoteDial(0.12),
  };

  function play({ at, until, late, songSeconds: s, pitch, velocity }: Sounding) {
    const buffer = sound === undefined ? undefined : soundOf(sound);
    if (!buffer) return null;
    const rate = 2 ** ((pitch - read.root.at(s)) / 12);
    const [first, last] = bounds(buffer.duration, read.start.at(s), read.end.at(s));
    const again = read.loop.at(s) >= 0.5;
    const loopStart = Math.min(
      first + read["loop-start"].at(s) * (last - first),
      Math.max(first, last - SHORTEST_SECONDS),
    );
    const source = new AudioBufferSourceNode(context, {
      buffer,
      playbackRate: rate,
      loop: again,
      loopStart,
      loopEnd: last,
    });
    const from = first + late * rate;
    if (!again && from >= last) return null;
    const envelope = gain(context, 0);
    const loud = (velocity / 127) ** 1.4;
    envelope.gain.setTargetAtTime(loud, at, read.attack.at(s) / 3);
    envelope.gain.setTargetAtTime(loud * read.sustain.at(s), at + read.attack.at(s), read.decay.at(s) / 3);
    detune.connect(source.detune);
    source.connect(envelope).connect(level);
    if (again) source.start(at, from < last ? from : loopStart + ((from - last) % (last - loopStart)));
    else source.start(at, from, last - from);
    const end = (when: number, over: number) => {
      envelope.gain.cancelScheduledValues(when);
      envelope.gain.setTargetAtTime(0, when, over / 3);
      source.stop(when + over * 3);
    };
    end(until, read.release.at(s));
    source.onended = () => {
      envelope.disconnect();
      detune.disconnect(source.detune);
    };
    return {
      stop: (when: number) => end(when, BREAK_SECONDS),
      release: (when: number) => end(when, read.release.at(s)),
    };
  }

  return {
    output: filter,
    play,
    hold: (device) => {
      sound = device.sound;
    },
    dials: {
      ...read,
      ...tuned,
      cutoff: new ParamDial([filter.frequency]),
      resonance: new ParamDial([filter.Q]),
      level: new ParamDial([level.gain]),
    },
  };
}

/** Start and end in seconds; the end lies after the start. */
function bounds(duration: number, start: number, end: number): [first: number, last: number] {
  const first = Math.min(start * duration, Math.max(0, duration - SHORTEST_SECONDS));
  return [first, Math.max(end * duration, first + SHORTEST_SECONDS)];
}
