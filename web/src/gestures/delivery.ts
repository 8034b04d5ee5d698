import type { EditInputs } from "../api/types";
import { edit, editAndTell } from "../state/edits";

/** What could not be written is tried again so often, so long after. */
const MOST_TRIES = 30;
const AGAIN_MS = 2000;

const pause = (milliseconds: number) => new Promise((done) => setTimeout(done, milliseconds));

/** Writes what was played; while the server is away, or another tab was faster, it is kept and tried again. */
export async function delivered<K extends keyof EditInputs>(
  name: K,
  inputs: EditInputs[K],
  { quietly = false, wanted = () => true }: { quietly?: boolean; wanted?: () => boolean } = {},
): Promise<boolean> {
  for (let i = 0; i < MOST_TRIES; i++) {
    if (await (quietly ? edit : editAndTell)(name, inputs)) return true;
    if (!wanted()) return false;
    await pause(AGAIN_MS);
  }
  return false;
}
