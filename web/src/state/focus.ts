import { moveOf, trackOf } from "./catalogue";
import { isDriving } from "./driving";
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

/**
 * What a hand on a knob brings into focus: a setting of a move leaves in focus what it is a setting of, and while knobs
 * are touched to be driven the macro stays.
 */
export function focusOnKnob(address: string): void {
  if (!isDriving() && !moveOf(song().model, address)) focusOn(address);
}
