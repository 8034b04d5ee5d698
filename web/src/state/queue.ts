import { Refused } from "../api/client";
import { CalledOff } from "../api/send";
import { tell } from "./notice";
import { setSong } from "./song";

/** One change at a time, in order, so that each is made on the revision before it. */
let queue: Promise<unknown> = Promise.resolve();

export function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const next = queue.then(work, work);
  queue = next.catch(() => undefined);
  return next;
}

/** A place where a fault may be said, instead of in the notice for all. */
export type Say = (message: string) => void;

const LATE = "Another tab had changed the song. Here is its newest state; please try again.";
const CONFLICT = 409;

let newest: () => Promise<void> = async () => {};

/** Says how the newest state is taken when an edit came too late. */
export const onLate = (catchUp: () => Promise<void>): void => {
  newest = catchUp;
};

/** The answer, or null after a fault, which is said. Nothing is left hanging, whatever went wrong. */
export async function faultsSaid<T>(
  work: () => Promise<T>,
  say: Say = (message) => tell("fault", message),
): Promise<T | null> {
  try {
    return await work();
  } catch (error) {
    setSong({ preview: null });
    say(await words(error));
    return null;
  }
}

async function words(error: unknown): Promise<string> {
  if (error instanceof CalledOff) return "Called off; nothing was stored.";
  if (!(error instanceof Refused)) {
    console.error(error);
    return "That went wrong in this page. Please load it again; what was done is kept.";
  }
  if (error.status !== CONFLICT) return error.message;
  await newest().catch(() => undefined);
  return LATE;
}
