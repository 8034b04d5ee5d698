import type { Change, News, Snapshot, Wants } from "../api/types";
import { putTogether } from "../geometry/corners";
import { chooseRegions, chosenNow, setChoice } from "./choice";
import { drawHeard, heardInView, merged, remember } from "./drawing";
import { follows } from "./followers";
import { applyParts, EMPTY } from "./model";
import { api } from "./questions";
import { inTurn, onLate } from "./queue";
import { setSong, song } from "./song";
import { setView, viewNow } from "./view";

/** What of an answer this tab has use for. */
export const wants = (): Wants => ({ heard: heardInView(), sound: follows().stretchInPlay() });

/** What a whole song brings. */
export const whole = (snapshot: Snapshot) => ({
  model: applyParts(EMPTY, snapshot.parts),
  revision: snapshot.revision,
  undo: snapshot.undo,
  redo: snapshot.redo,
  ...snapshot.listening,
});

/** Takes the newest state of the song after another tab changed it. */
export async function catchUp(): Promise<void> {
  setSong({ ...whole(await api().snapshot()), drawn: {}, heard: {}, preview: null });
  dropLostChoice();
  follows().changed();
}
onLate(catchUp);

/** Takes what another tab did; asks for the song again only where that is not told, or a change was missed. */
export function follow({ revision, undo, redo, silent, rested, change }: News): Promise<void> {
  return inTurn(async () => {
    if (revision <= song().revision) return;
    if (!change || revision !== song().revision + 1 || change.clock_from !== null) return catchUp();
    remember({ ...change, revision });
    setSong((state) => ({
      ...merged(state, change),
      model: applyParts(state.model, change.parts),
      heard: Object.fromEntries(Object.entries(state.heard).filter(([address]) => !(address in change.touched))),
      silent,
      rested,
      revision,
      undo,
      redo,
      preview: null,
    }));
    dropLostChoice();
    follows().changed();
  });
}

/**
 * Takes what an edit made here has changed. Heard bands that were not asked for with it may be others now: they are
 * forgotten in the same moment, and those that are in view asked for again.
 */
export function take(change: Change, asked: string[]): void {
  remember(change);
  setSong((state) => ({
    ...merged(state, change),
    model: applyParts(state.model, change.parts),
    heard: {
      ...Object.fromEntries(Object.entries(state.heard).filter(([address]) => asked.includes(address))),
      ...change.heard,
      ...putTogether(state.heard, change.patches?.heard ?? {}),
    },
    conflicts: { ...state.conflicts, ...change.conflicts },
    silent: change.silent,
    rested: change.rested,
    revision: change.revision,
    undo: change.undo,
    redo: change.redo,
    preview: null,
  }));
  dropLostChoice();
  drawHeard(heardInView());
  follows().made(change);
}

/** Points and regions that are no longer there are no longer chosen; nor is a track that was taken away. */
function dropLostChoice(): void {
  const { model } = song();
  const { envelopeId, chosen, regionIds } = chosenNow();
  const left = regionIds.filter((id) => model.regions[id]);
  if (left.length < regionIds.length) chooseRegions(left);
  const { trackId } = viewNow();
  if (!model.tracks.some((track) => track.id === trackId)) setView({ trackId: model.tracks[0]?.id ?? null });
  const count = (envelopeId && model.envelopes[envelopeId]?.points.length) || 0;
  if (chosen.some((index) => index >= count)) setChoice({ chosen: chosen.filter((index) => index < count) });
}
