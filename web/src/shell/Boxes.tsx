import { ControlsBox } from "../panels/ControlsBox";
import { LearningBar } from "../panels/hands/LearningBar";
import { MappingsBox } from "../panels/hands/MappingsBox";
import { SurfaceBox } from "../panels/hands/SurfaceBox";
import { PresetBox } from "../panels/PresetBox";
import { SoundBox } from "../panels/SoundBox";
import { KeyList } from "./KeyList";
import { TempoBox } from "./TempoBox";

/** What opens over the studio, each when it is asked for. */
export function Boxes() {
  return (
    <>
      <KeyList />
      <PresetBox />
      <TempoBox />
      <SoundBox />
      <ControlsBox />
      <MappingsBox />
      <SurfaceBox />
      <LearningBar />
    </>
  );
}
