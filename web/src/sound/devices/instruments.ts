import { NoteDial, ParamDial } from "../dial";
import { biquad, constant, type DeviceSound, gain, hertz, oscillator, type Sounding, tuning } from "../parts";
import { sway } from "../sway";

const WAVES: OscillatorType[] = ["sawtooth", "square", "triangle", "sine"];
/** A voice that is broken off dies away in about this time. */
const BREAK_SECONDS = 0.012;

/**
 * One voice; notes turn its pitch and open its gate. After silence it begins again from the start of its wave, so that
 * a note sounds the same wherever playing began.
 */
export function monoSynth(context: BaseAudioContext): DeviceSound {
  const { detune, ...tuned } = tuning(context);
  const subLevel = gain(context, 0);
  const filter = biquad(context, { type: "lowpass" });
  const gate = gain(context, 0);
  let latest = 0;
  let silentFrom = Number.NEGATIVE_INFINITY;
  let pitchBefore: number | null = null;
  subLevel.connect(filter);
  filter.connect(gate);
  const voiceOf = (type: OscillatorType, to: AudioNode, frequency: number, at: number) => {
    const voice = oscillator(context, { type, frequency });
    detune.connect(voice.detune);
    voice.connect(to);
    voice.start(at);
    return voice;
  };
  const pair = (frequency: number, at: number) =>
    [voiceOf("sawtooth", filter, frequency, at), voiceOf("sine", subLevel, frequency / 2, at)] as const;
  let [main, sub] = pair(hertz(60), 0);

  /** Other voices in the place of those there are, from a moment on. */
  function again(frequency: number, at: number): void {
    for (const voice of [main, sub]) {
      voice.stop(at);
      voice.onended = () => {
        voice.disconnect();
        detune.disconnect(voice.detune);
      };
    }
    [main, sub] = pair(frequency, at);
  }

  const read = {
    wave: new NoteDial(0),
    sweep: new NoteDial(12),
    attack: new NoteDial(0.003),
    decay: new NoteDial(0.3),
    sustain: new NoteDial(0.6),
    release: new NoteDial(0.08),
    glide: new NoteDial(0.001),
  };

  function play({ at, until, songSeconds: s, pitch, velocity }: Sounding) {
    const level = 0.1 + 0.4 * (velocity / 127) ** 1.5;
    const [attack, decay, release] = [read.attack.at(s), read.decay.at(s), read.release.at(s)];
    if (at >= silentFrom) again(hertz(pitchBefore ?? pitch), at);
    pitchBefore = pitch;
    silentFrom = until + release;
    main.type = WAVES[Math.round(read.wave.at(s))];
    main.frequency.setTargetAtTime(hertz(pitch), at, read.glide.at(s) / 3);
    sub.frequency.setTargetAtTime(hertz(pitch) / 2, at, read.glide.at(s) / 3);
    gate.gain.cancelScheduledValues(at);
    gate.gain.setTargetAtTime(level, at, attack / 3);
    gate.gain.setTargetAtTime(level * read.sustain.at(s), at + attack, decay / 3);
    gate.gain.setTargetAtTime(0, until, release / 3);
    filter.detune.cancelScheduledValues(at);
    filter.detune.setTargetAtTime(read.sweep.at(s) * 100, at, 0.002);
    filter.detune.setTargetAtTime(0, at + attack + 0.006, decay / 3);
    const turn = ++latest;
    return {
      release: (when: number) => {
        if (turn !== latest) return;
        gate.gain.cancelScheduledValues(when);
        gate.gain.setTargetAtTime(0, when, release / 3);
        silentFrom = when + release;
      },
      stop: (when: number) => {
        gate.gain.cancelScheduledValues(when);
        gate.gain.setTargetAtTime(0, when, BREAK_SECONDS / 3);
        if (turn === latest) silentFrom = when + BREAK_SECONDS;
      },
    };
  }

  const begin = () => {
    pitchBefore = null;
    silentFrom = Number.NEGATIVE_INFINITY;
  };
  return {
    output: gate,
    play,
    begin,
    dials: {
      ...read,
      cutoff: new ParamDial([filter.frequency]),
      resonance: new ParamDial([filter.Q]),
      ...tuned,
      sub: new ParamDial([subLevel.gain]),
    },
  };
}

/** Where the three voices of a note lie in the spread. */
const SIDES = [-1, 0.13, 1];

export function padSynth(context: BaseAudioContext): DeviceSound {
  const filter = biquad(context, { type: "lowpass", Q: 0 });
  const { detune, bend, pitch: tune } = tuning(context);
  const spread = constant(context);
  const drift = sway(context, 0.3, (share) => share * 40);
  drift.output.connect(detune);
  const pitches = SIDES.map((side) => {
    const pitch = gain(context, 1);
    spread.connect(gain(context, side)).connect(pitch);
    detune.connect(pitch);
    return pitch;
  });
  const read = { attack: new NoteDial(0.6), release: new NoteDial(1.2) };

  function play({ at, until, late, songSeconds: s, pitch, velocity }: Sounding) {
    const envelope = gain(context, 0);
    const [attack, release] = [read.attack.at(s), read.release.at(s)];
    const level = 0.09 * (velocity / 127);
    const voices = pitches.map((detuned) => {
      const voice = oscillator(context, { type: "sawtooth", frequency: hertz(pitch) });
      detuned.connect(voice.detune);
      voice.connect(envelope);
      voice.start(at);
      return voice;
    });
    envelope.gain.setTargetAtTime(level, at, late > 0 ? 0.01 : attack / 3);
    envelope.connect(filter);
    const stop = (when: number, fall: number) => {
      envelope.gain.cancelScheduledValues(when);
      envelope.gain.setTargetAtTime(0, when, fall / 3);
      for (const voice of voices) voice.stop(when + fall * 3);
    };
    stop(until, release);
    voices[0].onended = () => {
      envelope.disconnect();
      for (const [i, detuned] of pitches.entries()) detuned.disconnect(voices[i].detune);
    };
    return {
      stop: (when: number) => stop(when, BREAK_SECONDS),
      release: (when: number) => stop(when, release),
    };
  }

  return {
    output: filter,
    play,
    begin: drift.begin,
    dials: {
      ...read,
      cutoff: new ParamDial([filter.frequency]),
      spread: new ParamDial([spread.offset]),
      bend,
      pitch: tune,
      "drift-rate": drift.rate,
      drift: drift.depth,
    },
  };
}

/** Two partials struck together; the upper one dies sooner. */
export function pluck(context: BaseAudioContext): DeviceSound {
  const output = gain(context, 0.5);
  const { detune, ...tuned } = tuning(context);
  const read = { ring: new NoteDial(1.4), strike: new NoteDial(0.4), partial: new NoteDial(3.5) };

  function play({ at, late, songSeconds: s, pitch, velocity }: Sounding) {
    if (late > 0) return null;
    const ring = read.ring.at(s);
    const level = (velocity / 127) ** 1.4;
    const partials = [
      { ratio: 1, level: 0.5 * level, ring },
      { ratio: read.partial.at(s), level: 0.6 * level * read.strike.at(s), ring: ring * 0.3 },
    ].map((part) => {
      const voice = oscillator(context, { frequency: hertz(pitch) * part.ratio });
      const envelope = gain(context, 0);
      detune.connect(voice.detune);
      envelope.gain.setTargetAtTime(part.level, at, 0.001);
      envelope.gain.setTargetAtTime(0, at + 0.004, part.ring / 4.6);
      voice.connect(envelope).connect(output);
      voice.start(at);
      voice.stop(at + part.ring * 2 + 0.1);
      voice.onended = () => {
        envelope.disconnect();
        detune.disconnect(voice.detune);
      };
      return { voice, envelope };
    });
    return {
      stop: (when: number) => {
        for (const { voice, envelope } of partials) {
          envelope.gain.cancelScheduledValues(when);
          envelope.gain.setTargetAtTime(0, when, BREAK_SECONDS / 3);
          voice.stop(when + BREAK_SECONDS * 3);
        }
      },
    };
  }

  return {
    output,
    play,
    dials: {
      ...read,
      ...tuned,
    },
  };
}
