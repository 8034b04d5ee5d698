import type { Explanation, Values } from "../api/types";
import { api } from "./questions";
import { transportNow } from "./transport";

/** While the playhead runs, numbers in words are asked for this often, all in one request. */
const EVERY_MS = 500;

/** What somebody shows of the playhead, and takes when it comes. */
export interface Asker {
  addresses: string[];
  /** Whose value is to be explained. */
  explained: string | null;
  take(found: { values: Values; explanation: Explanation | null }): void;
}

const askers = new Set<Asker>();
let timer = 0;
let busy = false;

async function ask(): Promise<void> {
  if (busy || askers.size === 0) return;
  busy = true;
  const all = [...askers];
  const addresses = [...new Set(all.flatMap((one) => one.addresses))];
  const explained = all.find((one) => one.explained)?.explained ?? null;
  const found = await api()
    .atPlayhead(addresses, explained, transportNow().playhead)
    .catch(() => null);
  busy = false;
  if (found) for (const one of all) if (askers.has(one)) one.take(found);
}

/** Has something asked again and again; all at the same moments, so that what comes is drawn together. */
export function askAgain(asker: Asker): () => void {
  askers.add(asker);
  timer ||= window.setInterval(() => void ask(), EVERY_MS);
  return () => {
    askers.delete(asker);
    if (askers.size > 0) return;
    clearInterval(timer);
    timer = 0;
  };
}
