import { ControlsBox } from "../panels/ControlsBox";
import { PresetBox } from "../panels/PresetBox";
import { SoundBox } from "../panels/SoundBox";
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
