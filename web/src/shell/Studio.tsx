import { EditPanel } from "../panels/edit/EditPanel";
import { Finder } from "../panels/Finder";
import { useKeys } from "./keys";
import { KnobStrip } from "../panels/knobs/KnobStrip";
import { SumPanel } from "../panels/sum/SumPanel";
import { Notice } from "../ui/Notice";
import { SongPanel } from "./SongPanel";
import { ToolBar } from "./ToolBar";
import { PlayButton, TopBar } from "./TopBar";
import { Carry, Loop } from "../table/Carry";
import { ClipPanel } from "../panels/ClipPanel";
import { Table } from "../table/Table";
import { TrackPanel } from "../panels/TrackPanel";
import { firstAutomated } from "../table/TrackRow";
import { useView, setView, type PanelName } from "../state/view";
import { useNarrow } from "../ui/useNarrow";
import { useShown } from "../state/useShown";

/** The parameter whose sum is shown: the focus of the selected track. */
function useFocus(): string | null {
  const { model, find } = useShown();
  const trackId = useView((state) => state.trackId);
  const focus = useView((state) => (trackId ? state.focus[trackId] : null));
  const track = model.tracks.find((entry) => entry.id === trackId);
  return focus ?? (track ? firstAutomated(track, find) : null);
}

const DESK_PANELS: PanelName[] = ["sum", "edit", "find", "clip", "track"];

export function Studio() {
  useKeys();
  const narrow = useNarrow();
  return (
    <>
      {narrow ? <Phone /> : <Desk />}
      <Carry />
      <Loop />
    </>
  );
}

function Desk() {
  const focus = useFocus();
  const wish = useView((state) => state.sheet) ?? "sum";
  const panel = DESK_PANELS.includes(wish) ? wish : "sum";
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_272px] grid-rows-[auto_minmax(0,1fr)_142px]">
      <div className="col-span-2"><TopBar narrow={false} /></div>
      <main className="flex min-h-0 min-w-0 flex-col" aria-label="Song">
        <ToolBar narrow={false} />
        <div className="min-h-0 grow"><Table narrow={false} /></div>
      </main>
      <aside className="row-span-2 flex min-h-0 flex-col overflow-auto border-l border-base-300 bg-base-100" aria-label="Panel">
        <Tabs names={DESK_PANELS} current={panel} />
        <Panel name={panel} focus={focus} />
      </aside>
      <div className="min-w-0 border-t border-base-300 bg-base-100"><KnobStrip /></div>
      <Notice narrow={false} />
    </div>
  );
}

const LABELS: Record<PanelName, string> = { sum: "Sum", edit: "Edit", find: "Finder", clip: "Clip", track: "Track", knobs: "Knobs", song: "Song" };

function Tabs({ names, current, phone = false }: { names: PanelName[]; current: PanelName | null; phone?: boolean }) {
  return (
    <div role="tablist" className={`tabs tabs-border flex-nowrap ${phone ? "min-w-0 grow overflow-x-auto" : "shrink-0 border-b border-base-300"}`}>
      {names.map((name) => (
        <button key={name} type="button" role="tab" aria-selected={current === name} className={`tab ${phone ? "h-11 shrink-0 px-1.5 text-[12.5px]" : "px-2.5"} ${current === name ? "tab-active font-bold" : ""}`} onClick={() => setView({ sheet: phone && current === name ? null : name })}>
          {LABELS[name]}
        </button>
      ))}
    </div>
  );
}

function Panel({ name, focus }: { name: PanelName; focus: string | null }) {
  if (name === "knobs") return <KnobStrip />;
  if (name === "edit") return <EditPanel />;
  if (name === "find") return <Finder />;
  if (name === "clip") return <ClipPanel />;
  if (name === "track") return <TrackPanel />;
  return name === "song" ? <SongPanel /> : <SumPanel address={focus} />;
}

/** One column: the song, one sheet from below, the transport in reach of the thumb. */
function Phone() {
  const focus = useFocus();
  const sheet = useView((state) => state.sheet);
  return (
    <div className="flex h-dvh flex-col">
      <TopBar narrow />
      <ToolBar narrow />
      <main className="min-h-0 grow" aria-label="Song"><Table narrow /></main>
      {sheet && (
        <section className={`flex shrink-0 flex-col overflow-auto border-t-2 border-base-300 bg-base-100 ${sheet === "knobs" ? "h-40" : "h-[46dvh]"}`} aria-label={LABELS[sheet]}>
          <Panel name={sheet} focus={focus} />
        </section>
      )}
      <nav className="flex shrink-0 items-center border-t border-base-300 bg-base-100 px-1 pb-[env(safe-area-inset-bottom)]">
        <Tabs names={["knobs", "sum", "edit", "find", "clip", "track", "song"]} current={sheet} phone />
        <PlayButton large />
      </nav>
      <Notice narrow />
    </div>
  );
}
