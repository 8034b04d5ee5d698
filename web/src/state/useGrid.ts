import type { Ticks } from "../api/types";
import { barTicks } from "../geometry/viewport";
import { gridOf } from "./grid";
import { useSong } from "./song";
import { useView } from "./view";

/** The grid in ticks, 0 when it is off. */
export function useGrid(): Ticks {
  const bar = useSong((state) => barTicks(state.model.head.meters[0]));
  return useView((state) => gridOf(state, bar));
}
