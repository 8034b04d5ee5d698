import { useMemo } from "react";
import type { EnvelopePart } from "../api/types";
import { useChoice } from "./choice";
import { lookup } from "./lookup";
import { shownModel, useSong } from "./song";

/** The model with what is being tried laid over it, and where to find things in it. */
export function useShown() {
  const model = useSong(shownModel);
  return useMemo(() => ({ model, find: lookup(model) }), [model]);
}

/** The envelope that is being worked on. */
export function useEnvelopeInHand(): EnvelopePart | undefined {
  const id = useChoice((state) => state.envelopeId);
  return useSong((state) => (id ? state.model.envelopes[id] : undefined));
}
