import { type Dial, NoteDial, ParamDial } from "../dial";
import { type DeviceSound, gain, hertz, oscillator, type Sounding, tuning } from "../parts";

const COUNT = 64;
const BREAK_SECONDS = 0.012;

interface Partial {
  level: GainNode;
  place: StereoPannerNode;
  /** How many voices it has now; with none it is not worked out. */
  sounding: number;
  tune: NoteDial;
  attack: NoteDial;
  ring: NoteDial;
}

/** Single partials struck together, each with a level, a tuning, a place and a time of its own. */
export function partialBank(context: BaseAudioContext): DeviceSound {
  const output = gain(context, 0.5);
  const { detune, ...tuned } = tuning(context);
  const read = {
    ring: new NoteDial(1.4),
    strike: new NoteDial(0.4),
    stretch: new NoteDial(1.06),
    count: new NoteDial(16),
  };
  const partials: Partial[] = Array.from({ length: COUNT }, () => {
    const level = gain(context, 0);
    const place = new StereoPannerNode(context);
    level.connect(place);
    return { level, place, sounding: 0, tune: new NoteDial(0), attack: new NoteDial(0.002), ring: new NoteDial(0.9) };
  });

  function play({ at, late, songSeconds: s, pitch, velocity }: Sounding) {
    if (late > 0) return null;
    const loud = (velocity / 127) ** 1.4;
    const bright = read.strike.at(s);
    const voices = partials.slice(0, Math.round(read.count.at(s))).flatMap((partial, i) => {
      const frequency = hertz(pitch) * (i + 1) ** read.stretch.at(s) * 2 ** (partial.tune.at(s) / 1200);
      if (frequency > context.sampleRate / 2.2) return [];
      const ring = read.ring.at(s) * partial.ring.at(s);
      const voice = oscillator(context, { frequency });
      const envelope = gain(context, 0);
      detune.connect(voice.detune);
      const attack = partial.attack.at(s);
      envelope.gain.setTargetAtTime(loud * (i === 0 ? 1 : 0.4 + bright), at, attack / 3);
      envelope.gain.setTargetAtTime(0, at + attack, ring / 4.6);
      voice.connect(envelope).connect(partial.level);
      if (partial.sounding++ === 0) partial.place.connect(output);
      voice.start(at);
      voice.stop(at + attack + ring * 2 + 0.1);
      voice.onended = () => {
        envelope.disconnect();
        if (--partial.sounding === 0) partial.place.disconnect(output);
        detune.disconnect(voice.detune);
      };
      return [{ voice, envelope }];
    });
    return {
      stop: (when: number) => {
        for (const { voice, envelope } of voices) {
          envelope.gain.cancelScheduledValues(when);
          envelope.gain.setTargetAtTime(0, when, BREAK_SECONDS / 3);
          voice.stop(when + BREAK_SECONDS * 3);
        }
      },
    };
  }

  const own = partials.flatMap(({ level, place, tune: cents, attack, ring }, i): [string, Dial][] => [
    [`level-${i + 1}`, new ParamDial([level.gain])],
    [`tune-${i + 1}`, cents],
    [`pan-${i + 1}`, new ParamDial([place.pan])],
    [`attack-${i + 1}`, attack],
    [`ring-${i + 1}`, ring],
  ]);
  return {
    output,
    play,
    dials: {
      ...read,
      ...Object.fromEntries(own),
      ...tuned,
    },
  };
}
