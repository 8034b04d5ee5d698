import type { Listening } from "../api/types";
import { drawHeard, heardInView } from "./drawing";
import { follows } from "./followers";
import { api } from "./questions";
import { faultsSaid, inTurn } from "./queue";
import { setSong, song } from "./song";

/** Takes what is listened to now, here or told by another tab; what may be heard otherwise is asked for again. */
export function takeListening({ muted, soloed, silent, resting, rested, touched }: Listening): void {
  const moves = resting.join() !== song().resting.join();
  setSong({ muted, soloed, silent, rested, ...(moves && { resting }) });
  if (moves) hearAgain(touched);
  follows().listening();
}

/** What is heard has changed while the song has not: of these addresses, or of all where nobody says. */
function hearAgain(touched?: string[]): void {
  const left = Object.entries(song().heard).filter(([address]) => touched && !touched.includes(address));
  setSong({ heard: Object.fromEntries(left), preview: null });
  drawHeard(heardInView());
  follows().changed();
}

/** Mutes or soloes a track for listening, or lets go; no edit, so undo does not know of it. */
export const toggleListening = (trackId: string, what: "muted" | "soloed"): Promise<void> =>
  inTurn(async () => {
    const on = !song()[what].includes(trackId);
    const now = await faultsSaid(() => api().listening({ track_id: trackId, [what]: on }));
    if (now) takeListening(now);
  });

/** Whose moves may rest. */
export type Rester = "song" | `track/${string}` | `clip/${string}`;

/** Lets moves rest for a listen, or brings them back; with those of the song all come back. No edit either. */
export const toggleRest = (owner: Rester): Promise<void> =>
  inTurn(async () => {
    const { resting } = song();
    const rests = owner === "song" ? resting.length === 0 : !resting.includes(owner);
    const now = await faultsSaid(() => api().listening({ rest: owner, rests }));
    if (now) takeListening(now);
  });
