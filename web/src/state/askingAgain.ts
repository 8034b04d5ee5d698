/** While the playhead runs, numbers in words are asked for this often. */
const EVERY_MS = 330;

const askers = new Set<() => void>();
let timer = 0;

/** Has something asked again and again; all at the same moments, so that what comes is drawn together. */
export function askAgain(ask: () => void): () => void {
  askers.add(ask);
  timer ||= window.setInterval(() => {
    for (const each of askers) each();
  }, EVERY_MS);
  return () => {
    askers.delete(ask);
    if (askers.size > 0) return;
    clearInterval(timer);
    timer = 0;
  };
}
