import { useMemo } from "react";
import type { EnvelopePart, TrackPart } from "../api/types";
import { trackOf } from "./catalogue";
import { useChoice } from "./choice";
import { firstAutomated } from "./focus";
import { useLatest } from "./latest";
import { useNotes } from "./noteChoice";
import { useShown } from "./useShown";
import { useView } from "./view";

/** What one is about: the narrowest thing that is chosen. */
export type About = "notes" | "points" | "envelope" | "value" | "track";

/** What the panel at hand is about, and all that stands over it. */
export interface AtHand {
  about: About;
  track: TrackPart | undefined;
  /** The parameter, by its address; of a track of which nothing is looked at, null. */
  address: string | null;
  /** The envelope in hand, or the first that moves the parameter where the hand is. */
  envelope: EnvelopePart | undefined;
  /** All envelopes of the parameter. */
  envelopes: EnvelopePart[];
}

/** The parameter at hand: of the points that are chosen, or the one the selected track shows; whichever came last. */
export function useAddress(): string | null {
  const { find, model } = useShown();
  const pinned = useView((state) => state.pinnedAtHand);
  const trackId = useView((state) => state.trackId);
  const focus = useView((state) => (trackId ? state.focus[trackId] : null));
  const chosen = useChoice(({ envelopeId, chosen, span }) => (chosen.length > 0 || span ? envelopeId : null));
  const track = model.tracks.find(({ id }) => id === trackId);
  const latest = useLatest((state) => state.points);
  const target = chosen && latest ? model.envelopes[chosen]?.target : undefined;
  return pinned ?? target ?? focus ?? (track ? firstAutomated(track, find, model) : null);
}

/** What is chosen, from the parameter down to its points; or the notes; or, with nothing chosen, the track. */
export function useAtHand(): AtHand {
  const { find, model } = useShown();
  const address = useAddress();
  const pinned = useView((state) => state.pinnedAtHand !== null);
  const selected = useView((state) => state.trackId);
  const latest = useLatest((state) => state.points);
  const notes = useNotes((state) => state.chosen.length > 0);
  const { envelopeId, regionId, chosen, span } = useChoice();
  return useMemo(() => {
    const envelopes = (address && find.targets[address]) || [];
    const clipId = regionId ? model.regions[regionId]?.clip_id : undefined;
    const inHand = envelopes.find(({ id }) => id === envelopeId);
    const inRegion = envelopes.find(({ owner }) => owner === `clip/${clipId}`);
    const envelope = inHand ?? inRegion ?? envelopes[0];
    const trackId = address ? trackOf(model, address) : selected;
    const track = model.tracks.find(({ id }) => id === trackId);
    const narrowest = (): About => {
      if (notes && !pinned) return "notes";
      if (!address) return "track";
      if (inHand && latest && (chosen.length > 0 || span)) return "points";
      return inHand || inRegion ? "envelope" : "value";
    };
    return { about: narrowest(), track, address, envelope, envelopes };
  }, [find, model, address, pinned, selected, latest, notes, envelopeId, regionId, chosen, span]);
}
