import { useEffect } from "react";
import { readInputs } from "../gestures/inputs";
import { offerLeft } from "../gestures/recovery";
import { openToSurfaces } from "../gestures/studioSurface";
import { TypedValue } from "../panels/knobs/TypedValue";
import { mappingsNow, readMappings } from "../state/mappings";
import { readPad } from "../state/pad";
import { readSets } from "../state/sets";
import { useSong } from "../state/song";
import { waitsForSurfaces } from "../state/surfaces";
import { Carry, Loop } from "../table/Carry";
import { Away } from "../ui/Away";
import { Later, Part } from "../ui/later";
import { Spoken } from "../ui/Notice";
import { useNarrow } from "../ui/useNarrow";
import { Desk } from "./Desk";
import { useFocusKeeper } from "./focusKeeper";
import { useKeys } from "./keys";
import { Phone } from "./Phone";
import { ThingMenu } from "./ThingMenu";

const BOXES = new Part(async () => (await import("./Boxes")).Boxes);

export function Studio() {
  useKeys();
  useFocusKeeper();
  const narrow = useNarrow();
  const name = useSong((state) => state.model.head.name);
  const songId = useSong((state) => (state.model.tracks.length > 0 ? state.songId : null));
  useEffect(() => {
    if (songId === null) return;
    offerLeft(songId);
    readSets(songId);
    if (waitsForSurfaces()) openToSurfaces(songId);
    readPad(songId);
    void readMappings().then(() => {
      const { song, all } = mappingsNow();
      if (song.length + all.length > 0) void readInputs();
    });
  }, [songId]);
  return (
    <>
      <h1 className="sr-only">{name}</h1>
      {narrow ? <Phone /> : <Desk />}
      <Spoken />
      <Carry />
      <Loop />
      <Away />
      <ThingMenu />
      <TypedValue />
      <Later part={BOXES} props={{}} />
    </>
  );
}
