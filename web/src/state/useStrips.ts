import { useMemo } from "react";
import { type Strips, stripsOf } from "../geometry/heights";
import { useView } from "./view";

/** How tall the strips of a track are drawn. */
export function useStrips(trackId: string): Strips {
  const tall = useView((state) => state.tall[trackId]);
  return useMemo(() => stripsOf(tall), [tall]);
}
