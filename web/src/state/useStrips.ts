import { useMemo } from "react";
import { type Strips, stripsOf } from "../geometry/heights";
import { useSong } from "./song";
import { useView } from "./view";

/** How tall the strips of a track are drawn. */
export function useStrips(trackId: string): Strips {
  const tall = useView((state) => state.tall[trackId]);
  const track = useSong(({ model }) => model.tracks.find(({ id }) => id === trackId));
  return useMemo(() => stripsOf(tall, track), [tall, track]);
}
