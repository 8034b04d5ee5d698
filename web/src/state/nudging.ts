/** Nudges of one choice follow each other when no more than this lies between them. */
const FOLLOWS_MS = 5000;
let last = { what: "", pass: "", at: 0 };

/** By what name nudges that follow each other are one step of undo. */
export function nudging(what: string, now = performance.now()): { pass: string } {
  const follows = last.what === what && now - last.at < FOLLOWS_MS;
  last = { what, pass: follows ? last.pass : (crypto.randomUUID?.() ?? `${Date.now()} ${Math.random()}`), at: now };
  return { pass: last.pass };
}
