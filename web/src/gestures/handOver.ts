import { newToken, Refused, work } from "../api/client";
import { handedOver, handingOver } from "../api/handingOver";
import type { HandOverChoices, HandOverSound, Ticks } from "../api/types";
import { encode } from "../sound/mixdown/encode";
import { CalledOff, MOST_TAPS, type RenderJob, render } from "../sound/mixdown/render";
import { asLoop, withTail } from "../sound/mixdown/shape";
import type { Bits } from "../sound/mixdown/wav";
import { type Heard, handOverNow, setHandOver } from "../state/handOver";
import { lookAgain } from "../state/looseEnds";
import { songEnd } from "../state/model";
import { song } from "../state/song";

/** A sound to be made: how, and the file of each tap. */
interface Wanted {
  job: RenderJob;
  loop: boolean;
  files: string[];
}

const stem = (name: string): string => {
  const words = name.toLowerCase().replace(/[^\p{L}\p{M}\p{N}]+/gu, "-");
  return words.replace(/^-|-$/g, "") || "song";
};

/** Names in a folder, each once. */
function named(folder: string, names: string[]): string[] {
  const used = new Map<string, number>();
  return names.map((name) => {
    const plain = stem(name);
    const count = (used.get(plain) ?? 0) + 1;
    used.set(plain, count);
    return `${folder}/${count === 1 ? plain : `${plain}-${count}`}.wav`;
  });
}

/** Renders that make the chosen sounds. */
function wanted({ what, rate, listening }: HandOverSound, from_tick: Ticks, to_tick: Ticks): Wanted[] {
  const { model, silent } = song();
  const job = { from_tick, to_tick, rate, taps: [], silent: listening ? silent : [] };
  if (what === "song") return [{ job, loop: false, files: [`${stem(model.head.name)}.wav`] }];
  if (what === "tracks") {
    const tracks = model.tracks.filter(
      ({ id, kind }) => kind !== "carrier" && kind !== "master" && !job.silent.includes(id),
    );
    const files = named(
      "stems",
      tracks.map(({ name }) => name),
    );
    return Array.from({ length: Math.ceil(tracks.length / MOST_TAPS) }, (_, i) => {
      const [first, last] = [i * MOST_TAPS, (i + 1) * MOST_TAPS];
      return {
        job: { ...job, taps: tracks.slice(first, last).map(({ id }) => id) },
        loop: false,
        files: files.slice(first, last),
      };
    });
  }
  const regions = Object.values(model.regions);
  const clips = Object.values(model.clips).filter(
    ({ id, kind }) => kind !== "carrier" && regions.some((one) => one.clip_id === id),
  );
  const files = named(
    "loops",
    clips.map(({ name }) => name),
  );
  return clips.map((clip, i) => {
    const owner = regions.find((one) => one.clip_id === clip.id)?.owner.slice("track/".length) ?? "";
    const alone = { ...job, from_tick: 0, to_tick: clip.length_ticks, taps: [owner], silent: [], clipId: clip.id };
    return { job: alone, loop: true, files: [files[i]] };
  });
}

/** Makes all that is chosen, and has it wait to be saved; it can be called off, and then nothing of it is left. */
export async function handOver(): Promise<void> {
  const { songId, revision, model } = song();
  if (songId === null || handOverNow().running) return;
  const { choices } = handOverNow();
  const stopper = new AbortController();
  const token = newToken();
  const stop = () => {
    stopper.abort();
    void work.cancel(token);
  };
  const told = (share: number, words: string) => setHandOver({ running: { share, words, stop } });
  setHandOver({ ready: null, fault: null });
  told(0, "beginning");
  let wait: string | null = null;
  try {
    const list = (choices.sounds ?? []).flatMap((sound) => {
      return wanted(sound, choices.from_tick ?? 0, choices.to_tick ?? songEnd(model)).map((one) => ({
        ...one,
        bits: sound.bits as Bits,
        what: sound.what,
      }));
    });
    const share = list.length > 0 ? 0.2 : 0.9;
    const events = work.follow(token, (done, words) => told(share * done, words));
    const made = await handingOver(songId)
      .make(choices, token)
      .finally(() => events.close());
    wait = made.token;
    setHandOver({ losses: made.losses });
    const heard: Heard[] = [];
    for (const [i, one] of list.entries()) {
      const part = (done: number) => 0.2 + (0.7 * (i + done)) / list.length;
      const rendered = await render(
        one.job,
        (done) => told(part(0.7 * done), `sounding ${one.files[0]}`),
        stopper.signal,
      );
      for (const [tap, name] of one.files.entries()) {
        const channels = one.loop ? asLoop(rendered, tap) : withTail(rendered, tap);
        const { file, measured, frames } = await encode({ channels, rate: one.job.rate, bits: one.bits });
        heard.push({ name, ...measured });
        if (one.what === "song" && !choices.from_tick && !choices.to_tick && Number.isFinite(measured.peak_db))
          await handingOver(songId).mixdown(measured.peak_db, revision);
        const send = (done: number) => told(part(0.7 + (0.3 * (tap + done)) / one.files.length), `storing ${name}`);
        await handedOver(made.token).send(name, new Blob([file]), frames, one.job.rate, send, stopper.signal);
      }
    }
    told(0.92, "packing");
    const packing = work.follow(token, (done, words) => told(0.92 + 0.08 * done, words));
    const file = await handedOver(made.token)
      .wrap(model.head.name, token)
      .finally(() => packing.close());
    setHandOver({ running: null, ready: { ...file, notes: made.notes, heard } });
    lookAgain();
  } catch (error) {
    if (wait) void handedOver(wait).drop();
    setHandOver({ running: null, fault: faultOf(error, stopper.signal.aborted) });
  }
}

function faultOf(error: unknown, stopped: boolean): string {
  if (stopped || error instanceof CalledOff) return "Called off; nothing of it is left.";
  if (error instanceof Refused) return error.faults.map(({ message }) => message).join(" ");
  return `It could not be made: ${error instanceof Error ? error.message : String(error)}`;
}

/** Keeps what is chosen with the song. */
export const keepChoices = async (choices: HandOverChoices): Promise<void> => {
  const { songId } = song();
  if (songId !== null) setHandOver({ known: await handingOver(songId).choose(choices) });
};
