import { clsx } from "clsx";
import { Hand, House, Moon, Redo2, Repeat, Square, Sun, Triangle, Undo2, ZoomIn, ZoomOut } from "lucide-react";
import { useEffect, useRef } from "react";
import { positionText } from "../geometry/viewport";
import { player } from "../sound/player";
import { edit, editAndTell, step } from "../state/edits";
import { useSong } from "../state/song";
import { transportNow, useLevel, useTransport } from "../state/transport";
import { useView } from "../state/view";
import { zoom } from "../table/scrolling";
import { NumberField, TextField } from "../ui/Fields";
import { toggleTheme, useTheme } from "../ui/theme";
import { go } from "./route";

export function PlayButton({ large = false }: { large?: boolean }) {
  const playing = useTransport((state) => state.playing);
  return (
    <button
      type="button"
      className={`btn btn-circle btn-neutral ${large ? "m-1 h-11 w-11" : "btn-sm"}`}
      aria-label={playing ? "Stop" : "Play"}
      title={`${playing ? "Stop" : "Play"} (space)`}
      onClick={() => player.toggle()}
    >
      {playing ? (
        <Square size={14} fill="currentColor" />
      ) : (
        <Triangle size={14} fill="currentColor" className="rotate-90" />
      )}
    </button>
  );
}

export function Position() {
  const meter = useSong((state) => state.model.head.meter);
  const shown = useRef<HTMLOutputElement>(null);
  useEffect(() => {
    const write = () => {
      const text = positionText(meter, transportNow().playhead);
      if (shown.current && shown.current.textContent !== text) shown.current.textContent = text;
    };
    write();
    return useTransport.subscribe(write);
  }, [meter]);
  return (
    <output
      ref={shown}
      className="w-18 text-base font-bold tabular-nums sm:w-20"
      aria-label="Position"
      aria-live="off"
      data-testid="position"
    />
  );
}

export function RangeButton() {
  const range = useSong((state) => state.model.head.range);
  const meter = useSong((state) => state.model.head.meter);
  return (
    <button
      type="button"
      className={`btn btn-sm ${range.on ? "btn-secondary" : "btn-ghost"}`}
      aria-pressed={range.on}
      title="Repeat the range while playing; drag on the ruler to set it"
      onClick={() => void edit("set_range", { on: !range.on })}
    >
      <Repeat size={14} /> {positionText(meter, range.start_tick).replace(/\.0$/, "")} –{" "}
      {positionText(meter, range.end_tick).replace(/\.0$/, "")}
    </button>
  );
}

export function UndoButtons({ words = true }: { words?: boolean }) {
  const undo = useSong((state) => state.undo);
  const redo = useSong((state) => state.redo);
  return (
    <div className="flex min-w-0 items-center">
      <button
        type="button"
        className={clsx("btn btn-ghost btn-sm min-w-0 justify-start", words && "w-44 shrink max-[900px]:w-auto")}
        disabled={!undo}
        aria-label={undo ? `Undo: ${undo}` : "Nothing to undo"}
        title={undo ? `Undo: ${undo}` : "Nothing to undo"}
        onClick={() => void step("undo")}
      >
        <Undo2 size={15} className="shrink-0" />
        {words && undo && <span className="truncate font-normal max-[900px]:hidden">{undo}</span>}
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-sm btn-square"
        disabled={!redo}
        aria-label={redo ? `Redo: ${redo}` : "Nothing to redo"}
        title={redo ? `Redo: ${redo}` : "Nothing to redo"}
        onClick={() => void step("redo")}
      >
        <Redo2 size={15} />
      </button>
    </div>
  );
}

/** The quietest level that shows. */
const QUIETEST_DB = -60;

function Level() {
  const meter = useRef<HTMLDivElement>(null);
  const bar = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const write = ({ level }: { level: number }) => {
      const decibels = Math.max(level > 0 ? 20 * Math.log10(level) : QUIETEST_DB, QUIETEST_DB);
      const share = Math.min(1 - decibels / QUIETEST_DB, 1);
      if (bar.current) bar.current.style.transform = `scaleX(${share.toFixed(3)})`;
      meter.current?.setAttribute("aria-valuenow", String(Math.round(Math.min(decibels, 0))));
    };
    write(useLevel.getState());
    return useLevel.subscribe(write);
  }, []);
  return (
    <div
      ref={meter}
      role="meter"
      aria-label="Level"
      aria-valuemin={QUIETEST_DB}
      aria-valuemax={0}
      aria-valuenow={QUIETEST_DB}
      className="h-2 w-14 overflow-hidden rounded-full bg-base-300"
    >
      <div ref={bar} className="h-full w-full origin-left bg-success" />
    </div>
  );
}

export function ThemeButton() {
  const theme = useTheme();
  const Icon = theme === "lamplight" ? Sun : Moon;
  return (
    <button
      type="button"
      className="btn btn-ghost btn-sm btn-square"
      aria-label={theme === "lamplight" ? "Daylight" : "Lamplight"}
      title={theme === "lamplight" ? "Daylight" : "Lamplight"}
      onClick={toggleTheme}
    >
      <Icon size={15} />
    </button>
  );
}

/** Play, position, tempo, range, undo: across the top. */
export function TopBar({ narrow }: { narrow: boolean }) {
  const head = useSong((state) => state.model.head);
  return (
    <header className="flex h-12 shrink-0 items-center gap-1 sm:gap-2 border-b border-base-300 bg-base-100 px-2">
      <button
        type="button"
        className="btn btn-ghost btn-sm btn-square"
        aria-label="All songs"
        title="All songs"
        onClick={() => go("/")}
      >
        <House size={16} />
      </button>
      <TextField
        label="Name of the song"
        value={head.name}
        onCommit={(name) => edit("rename_song", { name })}
        className={clsx("input-ghost font-bold", narrow ? "w-full" : "w-full max-w-40")}
      />
      {narrow && <Position />}
      <FollowAgain />
      {!narrow && (
        <>
          <PlayButton />
          <Position />
          <span className="max-[900px]:hidden">
            <Level />
          </span>
          <TempoField />
          <MeterField />
          <RangeButton />
        </>
      )}
      <div className="grow" />
      <HandBackAll narrow={narrow} />
      <UndoButtons words={!narrow} />
      {!narrow && (
        <span className="flex max-[900px]:hidden">
          <ZoomButtons />
        </span>
      )}
      <ThemeButton />
    </header>
  );
}

/** There while it plays and a hand has scrolled away. */
function FollowAgain() {
  const playing = useTransport((state) => state.playing);
  const follow = useView((state) => state.follow);
  if (!playing || follow) return null;
  return (
    <button
      type="button"
      className="btn btn-sm px-2"
      title="The view goes along with the playhead again"
      onClick={() => player.follow()}
    >
      Follow
    </button>
  );
}

/** There while knobs are held by hand: hands all of them back. */
export function HandBackAll({ narrow }: { narrow: boolean }) {
  const count = useSong((state) =>
    state.model.tracks.reduce(
      (sum, track) => sum + track.devices.reduce((all, device) => all + Object.keys(device.held).length, 0),
      0,
    ),
  );
  if (count === 0) return null;
  return (
    <button
      type="button"
      className="btn btn-warning btn-sm px-2"
      aria-label={`Hand back all ${count} held knobs`}
      title="Knobs held by hand: hand them all back to what moves them"
      onClick={() => void editAndTell("hand_back", {})}
    >
      <Hand size={14} /> {narrow ? count : `Hand back ${count}`}
    </button>
  );
}

export function MeterField() {
  const { beats, unit } = useSong((state) => state.model.head.meter);
  const commit = async (text: string) => {
    const [b, u] = text.split("/").map(Number);
    return edit("set_meter", { beats: b, unit: u as 4 });
  };
  return (
    <TextField label="Meter" value={`${beats}/${unit}`} onCommit={commit} className="input-ghost w-12 text-center" />
  );
}

export function TempoField() {
  const bpm = useSong((state) => state.model.head.tempo[0].bpm);
  return (
    <NumberField
      showLabel={false}
      label="Tempo"
      unit="BPM"
      value={bpm}
      min={10}
      max={400}
      onCommit={(wish) => edit("set_tempo", { tick: 0, bpm: wish })}
    />
  );
}

export function ZoomButtons() {
  return (
    <>
      <button
        type="button"
        className="btn btn-ghost btn-sm btn-square"
        aria-label="Zoom out"
        title="Zoom out"
        onClick={() => zoom(1 / 1.4)}
      >
        <ZoomOut size={15} />
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-sm btn-square"
        aria-label="Zoom in"
        title="Zoom in"
        onClick={() => zoom(1.4)}
      >
        <ZoomIn size={15} />
      </button>
    </>
  );
}
