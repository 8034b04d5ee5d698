import { Ellipsis } from "lucide-react";
import type { RegionPart } from "../api/types";
import { REGION_COMMANDS } from "../commands";
import { does, hintOf } from "../commands/command";
import { tickToX } from "../geometry/viewport";
import { useChoice } from "../state/choice";
import { openMenu } from "../state/menu";
import { useView } from "../state/view";
import { useNarrow } from "../ui/useNarrow";

const COMMON = REGION_COMMANDS.filter(({ common }) => common);

/** What is done with the chosen regions most, in words or by icons, and the way to all of it. */
export function RegionStripDeeds({ inWords = false }: { inWords?: boolean }) {
  const look = inWords ? "by-choice px-3" : "by-choice";
  return (
    <>
      {COMMON.map((command) => (
        <button
          key={command.id}
          type="button"
          className={look}
          aria-label={`${command.words} these regions`}
          title={command.what + hintOf(command)}
          onClick={() => does(command)}
        >
          {inWords ? command.words : command.Icon && <command.Icon size={13} />}
        </button>
      ))}
      <button
        type="button"
        className={look}
        aria-label="Everything else with these regions"
        title="Everything else"
        aria-haspopup="menu"
        onClick={(event) => {
          const { left, bottom } = event.currentTarget.getBoundingClientRect();
          openMenu("regions", left, bottom);
        }}
      >
        {inWords ? "more" : <Ellipsis size={13} />}
      </button>
    </>
  );
}

/** Beside the name of the region at hand: what is done with the chosen ones. */
export function RegionStrip({ regions }: { regions: RegionPart[] }) {
  const regionId = useChoice((state) => state.regionId);
  const narrow = useNarrow();
  const pxPerTick = useView((state) => state.pxPerTick);
  const region = regions.find(({ id }) => id === regionId);
  if (!region || narrow) return null;
  const style = { left: tickToX({ pxPerTick }, region.start_tick), width: tickToX({ pxPerTick }, region.length_ticks) };
  return (
    <div className="region-strip" style={style}>
      <span className="region-deeds" role="group" aria-label="The chosen regions">
        <RegionStripDeeds />
      </span>
    </div>
  );
}
