import { TimeActions } from "./TimeMenu";
import { MeterField, RangeButton, TempoField, ZoomButtons } from "./TopBar";

/** What the top bar has no room for on a phone. */
export function SongPanel() {
  return (
    <section className="flex flex-wrap items-center gap-2 p-3" aria-label="Song settings">
      <TempoField />
      <MeterField />
      <RangeButton />
      <ZoomButtons />
      <p className="faint w-full text-[12px]">Press the bar numbers to move the playhead; drag over them to set the range that repeats.</p>
      <TimeActions />
    </section>
  );
}
