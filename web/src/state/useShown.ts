import { useMemo } from "react";
import { lookup } from "./lookup";
import { shownModel, useSong } from "./store";

/** The model with what is being tried laid over it, and where to find things in it. */
export function useShown() {
  const model = useSong(shownModel);
  return useMemo(() => ({ model, find: lookup(model) }), [model]);
}
