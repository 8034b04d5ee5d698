import { trackOf } from "./catalogue";
import { song } from "./song";
import { setView, viewNow } from "./view";

const MOST_LATELY = 24;

/** Brings a parameter into focus on its track, and remembers it as touched. */
export function focusOn(address: string): void {
  const { focus, lately } = viewNow();
  const trackId = trackOf(song().model, address);
  if (focus[trackId] === address && lately[0] === address) return;
  setView({
    focus: { ...focus, [trackId]: address },
    lately: [address, ...lately.filter((other) => other !== address)].slice(0, MOST_LATELY),
  });
}
