import { NoteDial, ParamDial } from "../dial";
import { type DeviceSound, gain, type Sounding, tuning } from "../parts";

const BREAK_SECONDS = 0.012;
const LEVELS: Record<string, "kick" | "snare" | "hats"> = {
  kick: "kick",
  snare: "snare",
  clap: "snare",
  rim: "snare",
  hat: "hats",
  "open-hat": "hats",
  shaker: "hats",
};

/** One-shots by note; the sounds are given as buffers with the event. */
export function drumKit(
  context: BaseAudioContext,
  soundOf: (pitch: number) => { id: string; buffer: AudioBuffer } | null,
): DeviceSound {
  const tone = new BiquadFilterNode(context, { type: "lowpass", Q: 0 });
  const levels = { kick: gain(context, 1), snare: gain(context, 1), hats: gain(context, 1), rest: gain(context, 1) };
  for (const level of Object.values(levels)) level.connect(tone);
  const { tune, detune, bend } = tuning(context);
  const decay = new NoteDial(2);

  function play({ at, late, songSeconds, pitch, velocity }: Sounding) {
    const sound = soundOf(pitch);
    if (!sound || late > 0) return null;
    const source = new AudioBufferSourceNode(context, { buffer: sound.buffer });
    const hit = gain(context, (velocity / 127) ** 1.6);
    detune.connect(source.detune);
    hit.gain.setTargetAtTime(0, at + decay.at(songSeconds) * 0.5, decay.at(songSeconds) / 6);
    source.connect(hit).connect(levels[LEVELS[sound.id] ?? "rest"]);
    source.start(at);
    source.onended = () => {
      hit.disconnect();
      detune.disconnect(source.detune);
    };
    return { stop: (when: number) => hit.gain.cancelScheduledValues(when).setTargetAtTime(0, when, BREAK_SECONDS / 3) };
  }

  return {
    output: tone,
    play,
    dials: {
      decay,
      bend,
      tune: new ParamDial([tune.offset], (semitones) => semitones * 100),
      tone: new ParamDial([tone.frequency]),
      kick: new ParamDial([levels.kick.gain]),
      snare: new ParamDial([levels.snare.gain]),
      hats: new ParamDial([levels.hats.gain]),
    },
  };
}

const reversed = new WeakMap<AudioBuffer, AudioBuffer>();

function backwards(buffer: AudioBuffer): AudioBuffer {
  const known = reversed.get(buffer);
  if (known) return known;
  const turned = new AudioBuffer({
    length: buffer.length,
    sampleRate: buffer.sampleRate,
    numberOfChannels: buffer.numberOfChannels,
  });
  for (let channel = 0; channel < buffer.numberOfChannels; channel++)
    turned.copyToChannel(buffer.getChannelData(channel).slice().reverse(), channel);
  reversed.set(buffer, turned);
  return turned;
}

export function loopPlayer(context: BaseAudioContext): DeviceSound {
  const level = gain(context, 1);
  const tone = new BiquadFilterNode(context, { type: "lowpass", Q: 0 });
  const { tune, detune, bend } = tuning(context);
  const turn = new NoteDial(0);
  level.connect(tone);

  function play({ at, until, late, songSeconds, buffer, into, rate }: Sounding) {
    if (!buffer) return null;
    const edge = gain(context, 0);
    const source = new AudioBufferSourceNode(context, {
      buffer: turn.at(songSeconds) >= 0.5 ? backwards(buffer) : buffer,
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
    source.connect(edge).connect(level);
    source.start(at, into + late * rate);
    stop(until);
    source.onended = () => {
      edge.disconnect();
      detune.disconnect(source.detune);
    };
    return { stop };
  }

  return {
    output: tone,
    play,
    dials: {
      backwards: turn,
      bend,
      pitch: new ParamDial([tune.offset], (semitones) => semitones * 100),
      tone: new ParamDial([tone.frequency]),
      gain: new ParamDial([level.gain]),
    },
  };
}
