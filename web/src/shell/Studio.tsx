import { useEffect } from "react";
import { offerLeft } from "../gestures/recovery";
import { ControlsBox } from "../panels/ControlsBox";
import { PresetBox } from "../panels/PresetBox";
import { SoundBox } from "../panels/SoundBox";
import { useSong } from "../state/song";
import { Carry, Loop } from "../table/Carry";
import { Away } from "../ui/Away";
import { useNarrow } from "../ui/useNarrow";
import { Desk } from "./Desk";
import { useFocusKeeper } from "./focusKeeper";
import { KeyList } from "./KeyList";
import { useKeys } from "./keys";
import { Phone } from "./Phone";

export function Studio() {
  useKeys();
  useFocusKeeper();
  const narrow = useNarrow();
  const songId = useSong((state) => (state.model.tracks.length > 0 ? state.songId : null));
  useEffect(() => {
    if (songId !== null) offerLeft(songId);
  }, [songId]);
  return (
    <>
      {narrow ? <Phone /> : <Desk />}
      <Carry />
      <Loop />
      <Away />
      <KeyList />
      <PresetBox />
      <SoundBox />
      <ControlsBox />
    </>
  );
}
