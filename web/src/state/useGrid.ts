import { gridOf } from "./grid";
import { useSong } from "./store";
import { barTicks } from "../geometry/viewport";

/** The grid in ticks, 0 when it is off. */
export const useGrid = () => useSong(({ view, model }) => gridOf(view, barTicks(model.head.meter)));
