import { clsx } from "clsx";
import { BoxSelect, CalendarRange, Ellipsis, Layers, Maximize2, MoonStar, MoveHorizontal } from "lucide-react";
import { useRef } from "react";
import {
  named as command,
  SHOWING_WORDS,
  STUDIO_COMMANDS,
  TOOL_COMMANDS,
  VIEW_COMMANDS,
  WAY_COMMANDS,
} from "../commands";
import { CommandMenu } from "../commands/CommandMenu";
import { does, hintOf, wordsOf } from "../commands/command";
import { scaled } from "../geometry/text";
import { useSong } from "../state/song";
import { setView, useView } from "../state/view";
import { useWidth } from "../ui/useWidth";
import { GridSelect } from "./GridSelect";

const MENU_LOOK = "btn btn-ghost btn-sm px-2 font-normal pointer-coarse:h-11";
const FIT = command(VIEW_COMMANDS, "fit");
const PUSH = command(WAY_COMMANDS, "push");
const REST = command(STUDIO_COMMANDS, "rest-all");
const SHOW = command(VIEW_COMMANDS, "hide");

/** Narrower than this, all but the tools and the grid stands behind one button. */
const ROOMY_PX = scaled(700);

/** What a press on an envelope does, on which grid, and what else is done with the song. */
export function ToolBar({ narrow }: { narrow: boolean }) {
  const bar = useRef<HTMLDivElement>(null);
  const roomy = useWidth(bar) >= ROOMY_PX;
  return (
    <div ref={bar} className={clsx("tool-bar", narrow && "flex-nowrap")} role="toolbar" aria-label="Envelope tools">
      <div className={clsx("flex items-center gap-1", narrow && "fade-x min-w-0 overflow-x-auto")}>
        {TOOL_COMMANDS.map((command) => (
          <ToolButton key={command.id} command={command} named={narrow} />
        ))}
        {narrow && <GridSelect />}
        {narrow && <RestAll narrow />}
      </div>
      {!narrow && roomy && <span className="mx-1 h-5 w-px shrink-0 bg-base-300" />}
      {!narrow && <GridSelect />}
      <div className="grow" />
      {roomy && !narrow ? <Spread /> : <Folded narrow={narrow} />}
    </div>
  );
}

function ToolButton({ command, named }: { command: (typeof TOOL_COMMANDS)[number]; named: boolean }) {
  const { tool, words, what, Icon } = command;
  const chosen = useView((state) => state.tool === tool);
  return (
    <button
      type="button"
      className={clsx(
        "btn btn-sm shrink-0 px-2 font-normal",
        named && "tool-named",
        chosen ? "btn-neutral" : "btn-ghost",
      )}
      aria-pressed={chosen}
      aria-label={words}
      title={`${words}: ${what}${hintOf(command)}`}
      onClick={() => does(command)}
    >
      {Icon && <Icon size={16} />} {(named || chosen) && words}
    </button>
  );
}

/** Lets all moves of the song rest, and tells that some do. */
function RestAll({ narrow = false }: { narrow?: boolean }) {
  const rests = useSong((state) => state.resting.length > 0);
  return (
    <button
      type="button"
      className={clsx(
        "btn btn-sm shrink-0 px-2 font-normal",
        narrow && "tool-named",
        rests ? "btn-warning" : "btn-ghost",
      )}
      aria-pressed={rests}
      title={`${wordsOf(REST)}: ${REST.whatNow?.()}${hintOf(REST)}`}
      onClick={() => does(REST)}
    >
      <MoonStar size={16} aria-hidden="true" /> {rests ? "Moves rest" : "Rest"}
    </button>
  );
}

/** The rest of the bar, where there is room for it. */
function Spread() {
  const push = useView((state) => state.push);
  const showing = useView((state) => state.showing);
  return (
    <>
      <RestAll />
      <button
        type="button"
        className={clsx("btn btn-sm px-2 font-normal", push ? "btn-secondary" : "btn-ghost")}
        aria-pressed={push}
        title={`${PUSH.words}: ${PUSH.what}`}
        onClick={() => does(PUSH)}
      >
        <MoveHorizontal size={16} aria-hidden="true" /> Push
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-sm px-2 font-normal"
        title={`Which envelopes are shown${hintOf(SHOW)}`}
        aria-label={`Envelopes shown: ${SHOWING_WORDS[showing]}`}
        onClick={() => does(SHOW)}
      >
        <Layers size={16} aria-hidden="true" /> {SHOWING_WORDS[showing]}
      </button>
      <CommandMenu
        subject={{ kind: "bars" }}
        label="Bars"
        title="Whole bars of the song; carrier clips"
        look={MENU_LOOK}
      >
        <CalendarRange size={16} aria-hidden="true" /> Bars
      </CommandMenu>
      <button
        type="button"
        className="btn btn-ghost btn-sm px-2 font-normal"
        title={FIT.what + hintOf(FIT)}
        aria-label="Fit"
        onClick={() => does(FIT)}
      >
        <Maximize2 size={16} aria-hidden="true" /> Fit
      </button>
    </>
  );
}

/** The same behind one button. Gathering is for fingers, whose drags else scroll. */
function Folded({ narrow }: { narrow: boolean }) {
  const gather = useView((state) => state.gather);
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
      <CommandMenu subject={{ kind: "bars" }} before={WAY_COMMANDS} label="More" look={`${MENU_LOOK} tool-named`}>
        <Ellipsis size={16} aria-hidden="true" /> More
      </CommandMenu>
    </>
  );
}
