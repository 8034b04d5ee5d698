import { clsx } from "clsx";
import {
  BoxSelect,
  CalendarRange,
  Ellipsis,
  Eraser,
  LassoSelect,
  Layers,
  type LucideIcon,
  Maximize2,
  MousePointer2,
  MoveHorizontal,
  Pencil,
  Slash,
  SquareDashed,
  StepForward,
} from "lucide-react";
import { useRef } from "react";
import { edit } from "../state/edits";
import { fit } from "../state/scrolling";
import { useSong } from "../state/song";
import { type Showing, setView, TOOLS, type Tool, turnShowing, useView, type View } from "../state/view";
import { type Deed, DeedMenu } from "../ui/Menu";
import { useWidth } from "../ui/useWidth";
import { useBarDeeds } from "./barDeeds";
import { GridSelect } from "./GridSelect";

export const TOOL_NAMES: Record<Tool, [name: string, what: string, icon: LucideIcon]> = {
  points: ["Points", "add, move and bend; drag over empty ground to loop around points", MousePointer2],
  range: ["Span", "drag over time to choose a stretch", SquareDashed],
  lasso: ["Lasso", "draw a loop around points", LassoSelect],
  freehand: ["Freehand", "draw as the hand goes", Pencil],
  steps: ["Steps", "draw held steps on the grid", StepForward],
  ramp: ["Ramp", "draw a straight line from press to release", Slash],
  rub: ["Rub out", "clear a stretch", Eraser],
};

const SHOWING_WORDS: Record<Showing, string> = {
  active: "only the one in hand",
  others: "others faintly",
  all: "all to edit",
};

/** Narrower than this, all but the tools and the grid stands behind one button. */
const ROOMY_PX = 700;

/** What a press on an envelope does, on which grid, and what else is done with the song. */
export function ToolBar({ narrow }: { narrow: boolean }) {
  const bar = useRef<HTMLDivElement>(null);
  const roomy = useWidth(bar) >= ROOMY_PX;
  return (
    <div ref={bar} className={clsx("tool-bar", narrow && "flex-nowrap")} role="toolbar" aria-label="Envelope tools">
      <div className={clsx("flex items-center gap-1", narrow && "fade-x min-w-0 overflow-x-auto")}>
        {TOOLS.map((id) => (
          <ToolButton key={id} id={id} named={narrow} />
        ))}
        {narrow && <GridSelect />}
      </div>
      {!narrow && roomy && <span className="mx-1 h-5 w-px shrink-0 bg-base-300" />}
      {!narrow && <GridSelect />}
      <div className="grow" />
      {roomy && !narrow ? <Spread /> : <Folded narrow={narrow} />}
    </div>
  );
}

function ToolButton({ id, named }: { id: Tool; named: boolean }) {
  const chosen = useView((state) => state.tool === id);
  const [name, what, Icon] = TOOL_NAMES[id];
  return (
    <button
      type="button"
      className={clsx(
        "btn btn-sm shrink-0 px-2 font-normal",
        named && "tool-named",
        chosen ? "btn-neutral" : "btn-ghost",
      )}
      aria-pressed={chosen}
      aria-label={name}
      title={`${name}: ${what}`}
      onClick={() => setView({ tool: id })}
    >
      <Icon size={16} aria-hidden="true" /> {(named || chosen) && name}
    </button>
  );
}

/** The rest of the bar, where there is room for it. */
function Spread() {
  const push = useView((state) => state.push);
  const showing = useView((state) => state.showing);
  const bars = useBarDeeds();
  return (
    <>
      <button
        type="button"
        className={clsx("btn btn-sm px-2 font-normal", push ? "btn-secondary" : "btn-ghost")}
        aria-pressed={push}
        title="Push: moving or deleting in time carries all later points along"
        onClick={() => setView({ push: !push })}
      >
        <MoveHorizontal size={16} aria-hidden="true" /> Push
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-sm px-2 font-normal"
        title="Which envelopes are shown"
        aria-label={`Envelopes shown: ${SHOWING_WORDS[showing]}`}
        onClick={turnShowing}
      >
        <Layers size={16} aria-hidden="true" /> {SHOWING_WORDS[showing]}
      </button>
      <DeedMenu
        label="Bars"
        title="Whole bars of the song; carrier clips"
        head={bars.head}
        deeds={[...bars.deeds, useAlong()]}
      >
        <CalendarRange size={16} aria-hidden="true" /> Bars
      </DeedMenu>
      <button
        type="button"
        className="btn btn-ghost btn-sm px-2 font-normal"
        title="Fit the chosen span, or the range, into view"
        aria-label="Fit"
        onClick={() => fit()}
      >
        <Maximize2 size={16} aria-hidden="true" /> Fit
      </button>
    </>
  );
}

/** The song-wide choice whether lane points go along with regions. */
function useAlong(): Deed {
  const on = useSong((state) => state.model.head.points_follow ?? false);
  return {
    id: "along",
    words: on ? "Let lane points stay" : "Let lane points go along",
    what: `when regions are moved, copied or removed; now they ${on ? "go along" : "stay"}`,
    act: () => edit("set_points_follow", { on: !on }),
  };
}

type Way = keyof View["ways"];

/** The same behind one button. Gathering is for fingers, whose drags else scroll. */
function Folded({ narrow }: { narrow: boolean }) {
  const push = useView((state) => state.push);
  const showing = useView((state) => state.showing);
  const gather = useView((state) => state.gather);
  const held = useView((state) => state.ways);
  const bars = useBarDeeds();
  const along = useAlong();
  const way = (id: Way, words: string, what: string): Deed => ({
    id,
    words: held[id] ? `${words}: no more` : words,
    what,
    act: () => setView({ ways: { ...held, [id]: !held[id] } }),
  });
  const ways: Deed[] = [
    { id: "fit", words: "Fit", what: "the chosen span, or the range, into view", act: () => fit() },
    {
      id: "push",
      words: push ? "Push no more" : "Push",
      what: "moving or deleting in time carries all later points along",
      act: () => setView({ push: !push }),
    },
    way("fine", "Drag finely", "a tenth as far as the hand goes"),
    way("free", "Drag off the grid", "to any tick"),
    way("whole", "Take whole segments", "a press on a line takes both its ends"),
    { id: "showing", words: "Show more or fewer envelopes", what: `now ${SHOWING_WORDS[showing]}`, act: turnShowing },
  ];
  return (
    <>
      {narrow && (
        <button
          type="button"
          className={clsx("btn btn-sm tool-named shrink-0 px-2 font-normal", gather ? "btn-secondary" : "btn-ghost")}
          aria-pressed={gather}
          title="Gather: taps choose regions one after the other, a drag draws a loop about them, two fingers scroll"
          onClick={() => setView({ gather: !gather })}
        >
          <BoxSelect size={16} aria-hidden="true" /> Gather
        </button>
      )}
      <DeedMenu label="More" className="tool-named" deeds={narrow ? [...ways, along] : [...ways, ...bars.deeds, along]}>
        <Ellipsis size={16} aria-hidden="true" /> More
      </DeedMenu>
    </>
  );
}
