/** How much of a frame drawing may take. */
const SHARE_MS = 4;

const waiting = new Set<() => void>();
let running = false;

/** Draws what can wait bit by bit over the next frames, so that no frame waits for all of it. */
export function drawLater(work: () => void): void {
  waiting.add(work);
  if (running) return;
  running = true;
  requestAnimationFrame(drawSome);
}

function drawSome(): void {
  const until = performance.now() + SHARE_MS;
  for (const work of waiting) {
    waiting.delete(work);
    work();
    if (performance.now() >= until) break;
  }
  running = waiting.size > 0;
  if (running) requestAnimationFrame(drawSome);
}
