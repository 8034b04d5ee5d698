import { songApi } from "../../api/client";
import type { ClockTable, Stretch, Ticks } from "../../api/types";
import { blockTicks, type Model, soundIds } from "../../state/model";
import { song } from "../../state/song";
import { Clock } from "../clock";
import { gain } from "../parts";
import { Performer } from "../performer";
import { atBlock, type Lap, stepsAtStart, stepsBetween } from "../planner";
import { Rack } from "../rack";
import { Sounds } from "../sounds";
import { Stretched } from "../stretched";
import { Stretches } from "../stretches";
import { loadWorklets } from "../worklets";

/** Dials come to rest before the first sound. */
const RUN_IN_SECONDS = 0.1;
/** What sounds on after the end, at the most. */
export const TAIL_SECONDS = 12;
/** Devices and the limiter come late by less. */
const MOST_LATE_SECONDS = 1;
/** So much is planned at once, and so far ahead. */
const SLICE_SECONDS = 0.5;
const TOLD_SLICE_SECONDS = 0.02;
/** Once so much was silent after the end, nothing more is worked out; what counts as silence is -90 dBFS. */
const LISTENED_FRAMES = 32768;
const SILENCE = 10 ** (-90 / 20);
/** A context has at most so many channels. */
const MOST_CHANNELS = 32;
export const MOST_TAPS = MOST_CHANNELS / 2;

/** Raised when a render was called off. */
export class CalledOff extends Error {}

export interface RenderJob {
  from_tick: Ticks;
  to_tick: Ticks;
  rate: number;
  /** Tracks of which the outputs are taken by themselves; none for the whole song as it leaves the master. */
  taps: string[];
  /** Tracks that are not heard. */
  silent: string[];
  /** A clip by itself, in place of the song. */
  clipId?: string;
}

/** What is rendered: the song as it stands, or as it stood for a hand-over. */
export interface Source {
  model: Model;
  clock(): Promise<ClockTable>;
  stretch(from: Ticks, to: Ticks): Promise<Stretch>;
  clipStretch(clipId: string, from: Ticks, to: Ticks): Promise<Stretch>;
}

function asItStands(): Source {
  const { model, songId } = song();
  if (songId === null) throw new Error("No song is open.");
  return { model, ...songApi(songId) };
}

export interface Rendered {
  rate: number;
  /** Two channels of each tap, from the start of the stretch on, with what sounds on after its end. */
  channels: Float32Array<ArrayBuffer>[];
  /** Frames of the stretch itself. */
  frames: number;
}

/**
 * Renders a stretch of the song as playing would sound it, faster than it plays: the same graph, the same steps, by the
 * clock of an offline context that stops every slice to be planned on.
 */
export async function render(
  job: RenderJob,
  told: (share: number) => void,
  stop: AbortSignal,
  source: Source = asItStands(),
): Promise<Rendered> {
  const { catalogue } = song();
  const { model } = source;
  if (!catalogue) throw new Error("No song is open.");
  const clock = job.clipId ? await clipClock(source, job) : new Clock((await source.clock()).clock);
  const [from, to] = [clock.secondsAt(job.from_tick), clock.secondsAt(job.to_tick)];
  const channels = 2 * Math.max(1, job.taps.length);
  const seconds = RUN_IN_SECONDS + (to - from) + TAIL_SECONDS + MOST_LATE_SECONDS;
  const context = new OfflineAudioContext(channels, Math.ceil(seconds * job.rate), job.rate);
  const sounds = new Sounds(context);
  await Promise.all([sounds.load(soundIds(model, catalogue)), loadWorklets(context)]);
  const stretched = new Stretched(sounds.get);
  const rack = new Rack(
    {
      context,
      drumSound: (pitch) => sounds.drum(catalogue.drum_sounds[pitch]),
      drumParts: catalogue.devices["drum-kit"].parts,
      soundOf: sounds.get,
    },
    catalogue.send_prefix,
    job.taps.length > 0 ? gain(context, 0) : context.destination,
  );
  rack.follow(model);
  tap(context, rack, job.taps);
  const outputs =
    job.taps.length > 0 ? job.taps : model.tracks.filter(({ kind }) => kind === "master").map(({ id }) => id);
  const quiet = listener(context, rack, outputs);
  await rack.ready();
  const whole = await fetched(source, job, stretched, stop, told);
  const driven = new Set(whole.flatMap(({ ramps }) => Object.keys(ramps)));
  rack.rest(catalogue, model, (address) => driven.has(address), 0);
  rack.silence(job.silent, 0);
  const start = atBlock(RUN_IN_SECONDS, job.rate);
  const lap: Lap = { from, to, lead: start - from, turn: 0 };
  const performer = new Performer(context, rack, { soundOf: sounds.get, stretchedOf: (event) => stretched.get(event) });
  const failed = conduct(context, rack, performer, whole, lap, {
    told: (share) => told(0.1 + 0.9 * share),
    stop,
    quiet,
  });
  const buffer = await Promise.race([context.startRendering(), calledOff(stop), failed]);
  stretched.dispose();
  const late = (channel: number) => (job.taps.length > 0 ? rack.lateness(job.taps[channel >> 1]) : rack.latency);
  const taken = Array.from({ length: channels }, (_, i) =>
    buffer.getChannelData(i).slice(Math.round((start + late(i)) * job.rate)),
  );
  return { rate: job.rate, channels: taken, frames: Math.round((to - from) * job.rate) };
}

const calledOff = (stop: AbortSignal): Promise<never> =>
  new Promise((_, fail) => stop.addEventListener("abort", () => fail(new CalledOff())));

/** A clip by itself has one tempo. */
async function clipClock(source: Source, { to_tick, clipId }: RenderJob): Promise<Clock> {
  const { from_seconds, to_seconds } = await source.clipStretch(clipId as string, 0, to_tick);
  return new Clock([
    [0, from_seconds],
    [to_tick, to_seconds],
  ]);
}

/** Leads what comes out of some tracks to channels of their own. */
function tap(context: OfflineAudioContext, rack: Rack, taps: string[]): void {
  if (taps.length === 0) return;
  const merger = new ChannelMergerNode(context, { numberOfInputs: 2 * taps.length });
  for (const [i, id] of taps.entries()) {
    const wide = new GainNode(context, { channelCount: 2, channelCountMode: "explicit" });
    const splitter = new ChannelSplitterNode(context, { numberOfOutputs: 2 });
    rack.output(id)?.connect(wide);
    wide.connect(splitter);
    splitter.connect(merger, 0, 2 * i);
    splitter.connect(merger, 1, 2 * i + 1);
  }
  merger.connect(context.destination);
}

/** Tells whether nothing has been heard lately of some tracks. */
function listener(context: OfflineAudioContext, rack: Rack, ids: string[]): () => boolean {
  const ears = ids.map((id) => {
    const ear = new AnalyserNode(context, { fftSize: LISTENED_FRAMES });
    rack.output(id)?.connect(ear);
    return ear;
  });
  const samples = new Float32Array(LISTENED_FRAMES);
  return () =>
    ears.every((ear) => {
      ear.getFloatTimeDomainData(samples);
      return samples.every((sample) => Math.abs(sample) < SILENCE);
    });
}

/** All that plays, block by block. */
async function fetched(
  source: Source,
  job: RenderJob,
  stretched: Stretched,
  stop: AbortSignal,
  told: (share: number) => void,
): Promise<Stretch[]> {
  const { clipId } = job;
  const ask = clipId
    ? (from: Ticks, to: Ticks) => source.clipStretch(clipId, from, Math.min(to, job.to_tick))
    : source.stretch;
  const stretches = new Stretches(ask, blockTicks(source.model), ({ events }) => stretched.ready(events ?? []));
  const size = stretches.blockTicks;
  const list: Stretch[] = [];
  const last = stretches.blockOf(job.to_tick - 1);
  for (let block = stretches.blockOf(job.from_tick); block <= last; block++) {
    if (stop.aborted) throw new CalledOff();
    await stretches.ready(block * size);
    const stretch = stretches.get(block * size);
    if (!stretch) throw new Error("The server does not answer; nothing was written.");
    list.push(stretch);
    told((0.1 * (block + 1)) / (last + 1));
  }
  return list;
}

/** Plans the first slices, and each further one as the one before it begins; what is answered only ever fails. */
function conduct(
  context: OfflineAudioContext,
  rack: Rack,
  performer: Performer,
  whole: Stretch[],
  lap: Lap,
  { told, stop, quiet }: { told: (share: number) => void; stop: AbortSignal; quiet: () => boolean },
): Promise<never> {
  const speakers = rack.speakers();
  const slice = speakers.length > 0 ? TOLD_SLICE_SECONDS : SLICE_SECONDS;
  let planned = lap.from;
  const plan = (goal: number) => {
    while (planned < Math.min(goal, lap.to) - 1e-9) {
      const stretch = whole.find(({ to_seconds }) => to_seconds > planned + 1e-7);
      if (!stretch) return;
      const to = Math.min(goal, lap.to, stretch.to_seconds);
      performer.perform(stepsBetween(stretch, planned, to), lap);
      planned = to;
    }
  };
  performer.begin(stepsAtStart(whole[0], lap.from), lap, RUN_IN_SECONDS / 2);
  plan(lap.from + 2 * SLICE_SECONDS);
  const end = context.length / context.sampleRate;
  const next = async (at: number): Promise<void> => {
    if (at >= end) return;
    await context.suspend(at);
    if (stop.aborted) return;
    plan(at - lap.lead + 2 * SLICE_SECONDS);
    performer.forgetPast(at);
    await Promise.all(speakers.map(({ speak }) => speak?.(at)));
    told(Math.min(1, (at - lap.lead - lap.from) / (lap.to - lap.from)));
    if (at > lap.to + lap.lead + 2 * SLICE_SECONDS && quiet()) {
      rack.dispose();
      return context.resume();
    }
    const further = next(at + slice);
    await context.resume();
    await further;
  };
  return new Promise((_, fail) => next(slice).catch(fail));
}
