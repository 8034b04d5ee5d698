import { clsx } from "clsx";
import { useEffect } from "react";
import { RecordButton } from "../panels/keys/RecordButton";
import { reveal } from "../state/scrolling";
import { type PanelName, setView, useView, viewNow } from "../state/view";
import { Table } from "../table/Table";
import { KeptStrip } from "../ui/Away";
import { Notice } from "../ui/Notice";
import { useArea } from "../ui/useArea";
import { useSeen } from "../ui/useSeen";
import { ChoiceBar } from "./ChoiceBar";
import { HelpBox } from "./HelpBox";
import { Panel } from "./Panel";
import { FAR_SHEETS, NEAR_SHEETS, PANELS } from "./panelNames";
import { ToolBar } from "./ToolBar";
import { TopBar, UndoButton } from "./TopBar";
import { PlayButton } from "./Transport";

/** One column: the song, one sheet from below, the transport in reach of the thumb. */
export function Phone() {
  const sheet = useView((state) => state.sheet);
  const { height, typing } = useSeen();
  const song = useArea<HTMLElement>("main", "Song");
  const below = useArea<HTMLElement>("navigation", "Sheets and transport");
  useEffect(() => {
    const { trackId } = viewNow();
    if (!typing) return;
    window.scrollTo(0, 0);
    if (trackId) reveal(trackId);
  }, [typing]);
  return (
    <div className="phone" style={typing && height ? { height } : undefined}>
      <div className="phone-column">
        <KeptStrip />
        <div className="phone-top">
          <TopBar narrow />
          {!typing && <ToolBar narrow />}
        </div>
        <main {...song} className="min-h-0 grow">
          <Table />
        </main>
        <div className="relative z-40 h-0">
          <div className="lets-through absolute inset-x-0 bottom-0 flex flex-col items-center gap-1">
            <Notice narrow />
            <ChoiceBar />
          </div>
        </div>
        {sheet && (
          <section
            className={clsx("sheet", sheet === "knobs" ? "sheet-low" : typing ? "h-[44%]" : "h-[46dvh]")}
            aria-label={PANELS[sheet].name}
          >
            <HelpBox names={[PANELS[sheet].name]} />
            <Panel name={sheet} />
          </section>
        )}
      </div>
      {!typing && (
        <nav {...below} className="phone-nav">
          <Sheets current={sheet} />
          <UndoButton />
          <RecordButton large />
          <PlayButton large />
        </nav>
      )}
    </div>
  );
}

/** The sheets used most, each behind a button, and the way to all; a second press puts the sheet away. */
function Sheets({ current }: { current: PanelName | null }) {
  return (
    <div className="phone-sheets">
      {[...NEAR_SHEETS, "all" as const].map((name) => {
        const { name: words, Icon } = PANELS[name];
        const open = current === name || (name === "all" && current !== null && FAR_SHEETS.includes(current));
        return (
          <button
            key={name}
            type="button"
            aria-expanded={open}
            className={clsx("sheet-button", open && "sheet-button-open")}
            onClick={() => setView({ sheet: open ? null : name })}
          >
            <Icon size={17} aria-hidden="true" />
            {words}
          </button>
        );
      })}
    </div>
  );
}
