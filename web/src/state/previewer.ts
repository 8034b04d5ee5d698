import { Refused } from "../api/client";
import type { EditInputs, Preview } from "../api/types";
import { putTogether } from "../geometry/corners";
import { player } from "../sound/player";
import { api, wants } from "./actions";
import { type SongState, setSong, song } from "./store";

/** A preview whose curves are whole: stretches put in place of what holds. */
function whole(preview: Preview, { curves, heard }: SongState): Preview {
  const patches = preview.patches;
  if (!patches) return preview;
  return { ...preview, curves: { ...preview.curves, ...putTogether(curves, patches.curves) }, heard: { ...preview.heard, ...putTogether(heard, patches.heard) } };
}

/** Tries edits while a hand moves: one request at a time, always the newest wish. */
export function previewer() {
  let busy = false;
  let wish: (() => Promise<Preview>) | null = null;
  let over = false;

  async function run(): Promise<void> {
    while (wish && !over) {
      const ask = wish;
      wish = null;
      busy = true;
      let fault: string | null = null;
      const preview = await ask().catch((error) => {
        if (!(error instanceof Refused)) throw error;
        fault = error.message;
        return null;
      });
      busy = false;
      if (over) return;
      setSong(({ carry }) => (carry ? { carry: { ...carry, fault } } : {}));
      if (preview) {
        setSong((state) => ({ preview: whole(preview, state) }));
        player.preview(preview);
      }
    }
  }

  return {
    ask<K extends keyof EditInputs>(name: K, inputs: EditInputs[K]): void {
      wish = () => api().preview(song().revision, name, inputs, wants());
      if (!busy) void run();
    },
    /** Ends the trial; what was shown goes back unless an edit takes its place. */
    end(committed: boolean): void {
      over = true;
      if (committed) return;
      setSong({ preview: null });
      player.dropPreview();
    },
  };
}
