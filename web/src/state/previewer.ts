import { Refused } from "../api/client";
import type { ClipPart, EditInputs, Preview } from "../api/types";
import { putTogether } from "../geometry/corners";
import { follows } from "./followers";
import { setHand } from "./hand";
import type { Model } from "./model";
import { api } from "./questions";
import { type SongState, setSong, song } from "./song";
import { wants } from "./taking";

/** Clips of a preview with their notes: those that stand, but for where they would differ. */
function withNotes({ parts, notes }: Preview, model: Model): Preview["parts"] {
  return parts.map(([kind, id, record]): Preview["parts"][number] => {
    const current = kind === "clip" && record ? model.clips[id]?.notes : undefined;
    if (!current) return [kind, id, record];
    const [first, gone, came] = notes[id] ?? [0, 0, []];
    const fits = first + gone <= current.length;
    const all = fits ? [...current.slice(0, first), ...came, ...current.slice(first + gone)] : current;
    return [kind, id, { ...(record as ClipPart), notes: all }];
  });
}

/** A preview that is whole: stretches of curves and of notes put in place of what holds. */
function filled(preview: Preview, { curves, heard, model }: SongState): Preview {
  const { patches } = preview;
  const parts = withNotes(preview, model);
  if (!patches) return { ...preview, parts };
  return {
    ...preview,
    parts,
    curves: { ...preview.curves, ...putTogether(curves, patches.curves) },
    heard: { ...preview.heard, ...putTogether(heard, patches.heard) },
  };
}

export interface Trial {
  ask<K extends keyof EditInputs>(name: K, inputs: EditInputs[K]): void;
  /** Ends the trial; what was shown goes back unless an edit takes its place. */
  end(committed: boolean): void;
}

/** Tries edits while a hand moves: one request at a time, always the newest wish. */
export function previewer(): Trial {
  let busy = false;
  let wish: (() => Promise<Preview>) | null = null;
  let over = false;

  /** Where regions are carried, the reason why they may not be dropped there is said beside the hand. */
  function told(preview: Preview | null, fault: string | null): void {
    setHand(({ carry }) => (carry ? { carry: { ...carry, fault } } : {}));
    if (!preview) return;
    setSong((state) => ({ preview: filled(preview, state) }));
    follows().tried(preview);
  }

  async function run(): Promise<void> {
    while (wish && !over) {
      const ask = wish;
      wish = null;
      busy = true;
      const [preview, fault] = await ask().then(
        (found): [Preview, null] => [found, null],
        (error): [null, string | null] => [null, error instanceof Refused ? error.message : null],
      );
      busy = false;
      if (!over) told(preview, fault);
    }
  }

  return {
    ask(name, inputs) {
      wish = () => api().preview(song().revision, name, inputs, wants());
      if (!busy) void run();
    },
    end(committed) {
      over = true;
      if (committed) return;
      setSong({ preview: null });
      follows().dropped();
    },
  };
}
