import { newToken, Refused, work } from "../api/client";
import { handedOver, handingOver } from "../api/handingOver";
import type { HandOverChoices, SoundToRender } from "../api/types";
import { versionsOf } from "../api/versions";
import { encode } from "../sound/mixdown/encode";
import { CalledOff, MOST_TAPS, type RenderJob, render, type Source } from "../sound/mixdown/render";
import { asLoop, withTail } from "../sound/mixdown/shape";
import { type Heard, handOverNow, setHandOver } from "../state/handOver";
import { lookAgain } from "../state/looseEnds";
import type { Model } from "../state/model";
import { song } from "../state/song";

/** Renders that make a sound: as many tracks at a time as one render takes, and the files of them. */
function renders(sound: SoundToRender): { job: RenderJob; files: string[] }[] {
  const { from_tick, to_tick, rate, taps, silent, files, clip_id: clipId } = sound;
  const job = { from_tick, to_tick, rate, silent, ...(clipId ? { clipId } : {}) };
  return Array.from({ length: Math.ceil(files.length / MOST_TAPS) }, (_, i) => {
    const part = [i * MOST_TAPS, (i + 1) * MOST_TAPS];
    return { job: { ...job, taps: taps.slice(...part) }, files: files.slice(...part) };
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
  const gone = () => {
    stopper.abort();
    work.leave(token);
    if (wait) handedOver(wait).leave();
  };
  addEventListener("pagehide", gone);
  try {
    const share = (choices.sounds ?? []).length > 0 ? 0.2 : 0.9;
    const events = work.follow(token, (done, words) => told(share * done, words));
    const made = await handingOver(songId)
      .make(choices, token)
      .finally(() => events.close());
    wait = made.token;
    setHandOver({ losses: made.losses });
    const source = heldFor(songId, made.token, model);
    const list = made.sounds.flatMap((sound) => renders(sound).map((one) => ({ ...one, sound })));
    const heard: Heard[] = [];
    for (const [i, one] of list.entries()) {
      const part = (done: number) => 0.2 + (0.7 * (i + done)) / list.length;
      const rendered = await render(
        one.job,
        (done) => told(part(0.7 * done), `sounding ${one.files[0]}`),
        stopper.signal,
        source,
      );
      for (const [tap, name] of one.files.entries()) {
        const channels = one.sound.clip_id ? asLoop(rendered, tap) : withTail(rendered, tap);
        const { file, measured, frames } = await encode({ channels, rate: one.job.rate, bits: one.sound.bits });
        heard.push({ name, ...measured });
        if (one.sound.what === "song" && !choices.from_tick && !choices.to_tick && Number.isFinite(measured.peak_db))
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
  } finally {
    removeEventListener("pagehide", gone);
  }
}

/** The song as it stood when it was asked for, whatever is edited meanwhile. */
function heldFor(songId: number, token: string, model: Model): Source {
  const api = versionsOf(songId);
  return {
    model,
    clock: () => api.clock(token),
    stretch: (from, to) => api.stretch(token, from, to),
    clipStretch: (clipId, from, to) => api.clipStretch(token, clipId, from, to),
  };
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
