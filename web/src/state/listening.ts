import type { Listening } from "../api/types";
import { follows } from "./followers";
import { api } from "./questions";
import { faultsSaid, inTurn } from "./queue";
import { setSong, song } from "./song";

/** Takes what is listened to now, here or told by another tab. */
export function takeListening({ muted, soloed, silent }: Listening): void {
  setSong({ muted, soloed, silent });
  follows().listening();
}

/** Mutes or soloes a track for listening, or lets go; no edit, so undo does not know of it. */
export const toggleListening = (trackId: string, what: "muted" | "soloed"): Promise<void> =>
  inTurn(async () => {
    const on = !song()[what].includes(trackId);
    const now = await faultsSaid(() => api().listening(trackId, { [what]: on }));
    if (now) takeListening(now);
  });
