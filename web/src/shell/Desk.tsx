import { clsx } from "clsx";
import { FEET, setView, useView } from "../state/view";
import { Table } from "../table/Table";
import { KeptStrip } from "../ui/Away";
import { Notice } from "../ui/Notice";
import { Rail } from "../ui/Rail";
import { useArea } from "../ui/useArea";
import { HelpBox, HelpButton } from "./HelpBox";
import { Panel } from "./Panel";
import { DESK_PANELS, PANELS } from "./panelNames";
import { ToolBar } from "./ToolBar";
import { TopBar } from "./TopBar";

const FOOT_HEIGHTS = { knobs: "h-38", mixer: "h-80", keys: "h-44", hands: "h-60" };
const TABS = DESK_PANELS.map((id) => ({ id, ...PANELS[id] }));

/** All in view: the song, the knobs at the foot, one panel at the right. */
export function Desk() {
  const wish = useView((state) => state.sheet) ?? "at-hand";
  const foot = useView((state) => state.foot);
  const open = useView((state) => state.panelOpen);
  const song = useArea<HTMLElement>("main", "Song");
  const side = useArea<HTMLElement>("complementary", "Panel");
  const below = useArea<HTMLDivElement>("region", "Foot");
  const panel = DESK_PANELS.includes(wish) ? wish : "at-hand";
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_auto] grid-rows-[auto_minmax(0,1fr)_auto]">
      <div className="col-span-2">
        <KeptStrip />
        <TopBar narrow={false} />
      </div>
      <main {...song} className="flex min-h-0 min-w-0 flex-col">
        <ToolBar narrow={false} />
        <div className="min-h-0 grow">
          <Table />
        </div>
      </main>
      <aside {...side} className="relative row-span-2 min-h-0 border-l border-base-300 bg-base-100">
        <Rail
          label="Panels"
          tabs={TABS}
          current={panel}
          open={open}
          onOpen={(sheet) => setView({ sheet, panelOpen: true })}
          onClose={() => setView({ panelOpen: false })}
          foot={<HelpButton look="rail-tab w-full" before={() => setView({ panelOpen: true })} />}
        >
          <HelpBox names={[PANELS[panel].name, PANELS[foot].name]} />
          <Panel name={panel} />
        </Rail>
      </aside>
      <div {...below} className={clsx("foot", FOOT_HEIGHTS[foot])}>
        <div className="foot-turn" role="group" aria-label="At the foot">
          {FEET.map((name) => (
            <button
              key={name}
              type="button"
              className="foot-tab"
              aria-pressed={foot === name}
              onClick={() => setView({ foot: name })}
            >
              {PANELS[name].name}
            </button>
          ))}
        </div>
        <div className="min-w-0 grow">
          <Panel name={foot} />
        </div>
      </div>
      <Notice narrow={false} />
    </div>
  );
}
