import { type Dial, NoteDial, ParamDial } from "../dial";
import { biquad, type DeviceSound, gain, type Sounding, tuning } from "../parts";
import type { Studio } from "./index";

const BREAK_SECONDS = 0.012;
const GROUPS: Record<string, "kick" | "snare" | "hats"> = {
  kick: "kick",
  snare: "snare",
  clap: "snare",
  rim: "snare",
  hat: "hats",
  "open-hat": "hats",
  shaker: "hats",
};

/** One part of the kit: a level, a filter, a place, and what is read for every hit. Without a hit it rests. */
function makePart(context: BaseAudioContext) {
  const level = gain(context, 1);
  const filter = biquad(context, { type: "lowpass", Q: 0 });
  const place = new StereoPannerNode(context);
  level.connect(filter).connect(place);
  return { level, filter, place, sounding: 0, tune: new NoteDial(0), decay: new NoteDial(3), choke: new NoteDial(0) };
}

interface Hit {
  gain: GainNode;
  group: number;
}

/** One-shots by note, each by a part with settings and sends of its own. */
export function drumKit({ context, drumSound, drumParts }: Studio): DeviceSound {
  const tone = biquad(context, { type: "lowpass", Q: 0 });
  const groups = { kick: gain(context, 1), snare: gain(context, 1), hats: gain(context, 1), rest: gain(context, 1) };
  for (const level of Object.values(groups)) level.connect(tone);
  const { detune, bend, pitch: tune } = tuning(context);
  const decay = new NoteDial(2);
  const parts = new Map(drumParts.map((id) => [id, makePart(context)]));
  const groupOf = (id: string) => groups[GROUPS[id] ?? "rest"];
  let hits: Hit[] = [];

  const fade = (hit: Hit, at: number) =>
    hit.gain.gain.cancelScheduledValues(at).setTargetAtTime(0, at, BREAK_SECONDS / 3);

  function play({ at, late, songSeconds, pitch, velocity }: Sounding) {
    const sound = drumSound(pitch);
    const part = sound && parts.get(sound.id);
    if (!sound || !part || late > 0) return null;
    const group = Math.round(part.choke.at(songSeconds));
    if (group > 0) for (const other of hits) if (other.group === group) fade(other, at);
    const source = new AudioBufferSourceNode(context, { buffer: sound.buffer });
    const hit = { gain: gain(context, (velocity / 127) ** 1.6), group };
    const seconds = Math.min(decay.at(songSeconds), part.decay.at(songSeconds));
    detune.connect(source.detune);
    source.detune.value = part.tune.at(songSeconds) * 100;
    hit.gain.gain.setTargetAtTime(0, at + seconds * 0.5, seconds / 6);
    source.connect(hit.gain).connect(part.level);
    if (part.sounding++ === 0) part.place.connect(groupOf(sound.id));
    source.start(at);
    hits.push(hit);
    source.onended = () => {
      hit.gain.disconnect();
      if (--part.sounding === 0) part.place.disconnect(groupOf(sound.id));
      detune.disconnect(source.detune);
      hits = hits.filter((other) => other !== hit);
    };
    return { stop: (when: number) => void fade(hit, when) };
  }

  const own = [...parts].flatMap(([id, part]): [string, Dial][] => [
    [`${id}-level`, new ParamDial([part.level.gain])],
    [`${id}-tune`, part.tune],
    [`${id}-decay`, part.decay],
    [`${id}-pan`, new ParamDial([part.place.pan])],
    [`${id}-cutoff`, new ParamDial([part.filter.frequency])],
    [`${id}-resonance`, new ParamDial([part.filter.Q])],
    [`${id}-choke`, part.choke],
  ]);
  return {
    output: tone,
    play,
    taps: new Map([...parts].map(([id, { place }]) => [id, place])),
    dials: {
      ...Object.fromEntries(own),
      decay,
      bend,
      tune,
      tone: new ParamDial([tone.frequency]),
      kick: new ParamDial([groups.kick.gain]),
      snare: new ParamDial([groups.snare.gain]),
      hats: new ParamDial([groups.hats.gain]),
    },
  };
}
