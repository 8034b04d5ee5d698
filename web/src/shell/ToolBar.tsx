import { BoxSelect, Eraser, Layers, LassoSelect, Link2, type LucideIcon, Maximize2, MoveHorizontal, MousePointer2, Pencil, Slash, SquareDashed, StepForward } from "lucide-react";
import { fit } from "../table/scrolling";
import { GRIDS } from "../state/grid";
import { edit } from "../state/edits";
import { TimeMenu } from "./TimeMenu";
import { useSong } from "../state/song";
import { useView, setView, turnShowing, TOOLS, type Tool } from "../state/view";
import { barTicks, beatTicks } from "../geometry/viewport";

export const TOOL_NAMES: Record<Tool, [name: string, what: string, icon: LucideIcon]> = {
  points: ["Points", "add, move and bend; drag over empty ground to loop around points", MousePointer2],
  range: ["Range", "drag over time to choose a stretch", SquareDashed],
  lasso: ["Lasso", "draw a loop around points", LassoSelect],
  freehand: ["Freehand", "draw as the hand goes", Pencil],
  steps: ["Steps", "draw held steps on the grid", StepForward],
  ramp: ["Ramp", "draw a straight line from press to release", Slash],
  rub: ["Rub out", "clear a stretch", Eraser],
};

const SHOWING_WORDS = { active: "only the active one", others: "others behind", all: "all to edit" };

/** What a press on an envelope does, and on which grid. */
export function ToolBar({ narrow }: { narrow: boolean }) {
  const tool = useView((state) => state.tool);
  const push = useView((state) => state.push);
  const showing = useView((state) => state.showing);
  return (
    <div className="flex shrink-0 items-center gap-1 overflow-x-auto border-b border-base-300 bg-base-100 px-2 py-1" role="toolbar" aria-label="Envelope tools">
      {TOOLS.map((id, i) => {
        const [name, what, Icon] = TOOL_NAMES[id];
        return (
          <button key={id} type="button" className={`btn btn-sm shrink-0 px-2 font-normal pointer-coarse:h-11 pointer-coarse:min-w-11 ${tool === id ? "btn-neutral" : "btn-ghost"}`} aria-pressed={tool === id} aria-label={name} title={`${name}: ${what} (${i + 1})`} onClick={() => setView({ tool: id })}>
            <Icon size={15} /> {!narrow && tool === id && name}
          </button>
        );
      })}
      <span className="mx-1 h-5 w-px shrink-0 bg-base-300" />
      <GridSelect />
      <button type="button" className={`btn btn-sm shrink-0 px-2 font-normal pointer-coarse:h-11 ${push ? "btn-secondary" : "btn-ghost"}`} aria-pressed={push} title="Push: moving or deleting in time carries all later points along" onClick={() => setView({ push: !push })}>
        <MoveHorizontal size={15} /> Push
      </button>
      <button type="button" className="btn btn-ghost btn-sm shrink-0 px-2 font-normal pointer-coarse:h-11" title="Which envelopes are shown (V)" aria-label={`Envelopes shown: ${SHOWING_WORDS[showing]}`} onClick={turnShowing}>
        <Layers size={15} /> {SHOWING_WORDS[showing]}
      </button>
      <GatherButton />
      <FollowButton />
      <TimeMenu />
      <button type="button" className="btn btn-ghost btn-sm shrink-0 px-2 font-normal pointer-coarse:h-11" title="Fit the chosen stretch, or the range, into view (0)" aria-label="Fit" onClick={() => fit()}>
        <Maximize2 size={15} /> Fit
      </button>
    </div>
  );
}

/** Presses on the table gather regions; with fingers, whose drags else scroll. */
function GatherButton() {
  const gather = useView((state) => state.gather);
  return (
    <button type="button" className={`btn btn-sm shrink-0 px-2 font-normal pointer-coarse:h-11 ${gather ? "btn-secondary" : "btn-ghost"}`} aria-pressed={gather} title="Gather: taps choose regions one after the other, a drag draws a loop about them" onClick={() => setView({ gather: !gather })}>
      <BoxSelect size={15} /> Gather
    </button>
  );
}

/** The song-wide choice whether lane points go along with regions. */
function FollowButton() {
  const on = useSong((state) => state.model.head.points_follow ?? false);
  return (
    <button type="button" className={`btn btn-sm shrink-0 px-2 font-normal pointer-coarse:h-11 ${on ? "btn-secondary" : "btn-ghost"}`} aria-pressed={on} aria-label="Lane points follow regions" title="Lane points follow regions that are moved, copied or removed; for the whole song" onClick={() => void edit("set_points_follow", { on: !on })}>
      <Link2 size={15} /> {on ? "Points follow" : "Points stay"}
    </button>
  );
}

export function GridSelect() {
  const grid = useView((state) => state.grid);
  const auto = useView((state) => state.gridAuto);
  const meter = useSong((state) => state.model.head.meter);
  const ticksOf = (ticks: number | "bar" | "beat") => (ticks === "bar" ? barTicks(meter) : ticks === "beat" ? beatTicks(meter) : ticks);
  const choose = (value: string) => setView(value === "auto" ? { gridAuto: true } : { gridAuto: false, grid: ticksOf(GRIDS.find(([name]) => name === value)?.[1] ?? 0) });
  const named = GRIDS.find(([name, ticks]) => name !== "bar" && name !== "beat" && ticksOf(ticks) === grid) ?? GRIDS.find(([, ticks]) => ticksOf(ticks) === grid);
  return (
    <label className="faint flex shrink-0 items-center gap-1 text-[12px]">
      grid
      <select className="select select-xs w-26 pointer-coarse:h-11" aria-label="Grid" title="Alt ignores it for a drag" value={auto ? "auto" : (named?.[0] ?? "off")} onChange={(event) => choose(event.target.value)}>
        <option value="auto">with the zoom</option>
        {GRIDS.map(([name]) => (
          <option key={name} value={name}>{name}</option>
        ))}
      </select>
    </label>
  );
}
