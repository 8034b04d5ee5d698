import { clsx } from "clsx";
import { Ear, Hand, House, Moon, Redo2, Spline, Sun, Undo2, VolumeOff, ZoomIn, ZoomOut } from "lucide-react";
import { silence } from "../commands/studio";
import { RecordButton } from "../panels/keys/RecordButton";
import { RecordWays } from "../panels/recording/RecordWays";
import { player } from "../sound/player";
import { edit, editAndTell, step } from "../state/edits";
import { useHearing } from "../state/hearing";
import { keyHint } from "../state/keyMap";
import { useLooseEnds } from "../state/looseEnds";
import { zoomAtHand } from "../state/scrolling";
import { useSong } from "../state/song";
import { setView } from "../state/view";
import { TextField } from "../ui/Fields";
import { IconButton } from "../ui/IconButton";
import { toggleTheme, useTheme } from "../ui/theme";
import { useArea } from "../ui/useArea";
import { HistoryMenu } from "./HistoryMenu";
import { OutputMenu } from "./OutputMenu";
import { go } from "./route";
import { MeterField, TempoField } from "./SongFields";
import { FollowAgain, Level, PlayButton, Position, RangeButton } from "./Transport";
/** Play, position, tempo, range, undo: across the top. */
export function TopBar({ narrow }: { narrow: boolean }) {
  const head = useSong((state) => state.model.head);
  const area = useArea<HTMLElement>("banner", "Top bar");
  return (
    <header
      {...area}
      className="flex h-12 shrink-0 items-center gap-1 sm:gap-2 border-b border-base-300 bg-base-100 px-2"
    >
      <IconButton label="All songs" onPress={() => go("/")}>
        <House size={16} />
      </IconButton>
      <TextField
        label="Name of the song"
        value={head.name}
        onCommit={(name) => edit("rename_song", { name })}
        className={clsx("song-name input-ghost font-bold", narrow ? "w-full min-w-10 px-1" : "w-full max-w-40")}
      />
      {narrow && <Position />}
      <FollowAgain />
      {!narrow && (
        <>
          <PlayButton />
          <RecordButton />
          <RecordWays />
          <Position />
          <span className="flex items-center gap-1 max-[56.25em]:hidden">
            <Level />
            <IconButton label="Silence: stop every note at once" onPress={silence}>
              <VolumeOff size={15} />
            </IconButton>
            <OutputMenu />
          </span>
          <TempoField />
          <MeterField />
          <RangeButton />
        </>
      )}
      <div className="grow" />
      <LooseEndsCount />
      <HearingVersion narrow={narrow} />
      <HandBackAll narrow={narrow} />
      {!narrow && <UndoButton words />}
      <RedoButton />
      {!narrow && <HistoryMenu />}
      {!narrow && (
        <span className="flex max-[56.25em]:hidden">
          <ZoomButtons />{" "}
        </span>
      )}
      <ThemeButton />
    </header>
  );
}

/** Takes the last step back; in words where there is room. */
export function UndoButton({ words = false }: { words?: boolean }) {
  const undo = useSong((state) => state.undo);
  return (
    <button
      type="button"
      className={clsx(
        "btn btn-ghost btn-sm",
        words ? "w-44 min-w-0 shrink justify-start max-[56.25em]:w-auto" : "btn-square shrink-0 pointer-coarse:size-11",
      )}
      disabled={!undo}
      aria-label={undo ? `Undo: ${undo}` : "Nothing to undo"}
      title={undo ? `Undo: ${undo}` : "Nothing to undo"}
      onClick={() => void step("undo")}
    >
      <Undo2 size={words ? 15 : 18} className="shrink-0" />
      {words && undo && <span className="truncate font-normal max-[56.25em]:hidden">{undo}</span>}
    </button>
  );
}

function RedoButton() {
  const redo = useSong((state) => state.redo);
  return (
    <IconButton label={redo ? `Redo: ${redo}` : "Nothing to redo"} off={!redo} onPress={() => void step("redo")}>
      <Redo2 size={15} />
    </IconButton>
  );
}

/** How many loose ends there are, and the way to them. */
function LooseEndsCount() {
  const count = useLooseEnds((state) => state.count);
  if (count === 0) return null;
  const words = count === 1 ? "1 loose end" : `${count} loose ends`;
  return (
    <button
      type="button"
      className="btn btn-ghost btn-sm px-1.5 font-normal pointer-coarse:h-11"
      aria-label={words}
      title={`${words}: what nobody meant, and how it is mended`}
      onClick={() => setView({ sheet: "ends", panelOpen: true })}
    >
      <Spline size={15} aria-hidden="true" /> {count}
    </button>
  );
}

/** There while a version is heard in place of the song as it stands: goes back to that. */
function HearingVersion({ narrow }: { narrow: boolean }) {
  const version = useHearing((state) => state.version);
  if (!version) return null;
  return (
    <button
      type="button"
      className="btn btn-warning btn-sm min-w-0 max-w-40 shrink-0 px-2 pointer-coarse:h-11"
      aria-label={`Hearing ${version.name}; hear the song as it stands`}
      title={`${version.name} is heard; a press goes back to the song as it stands ${keyHint("other")}`}
      onClick={() => void player.hear(null)}
    >
      <Ear size={14} className="shrink-0" /> {!narrow && <span className="truncate">{version.name}</span>}
    </button>
  );
}

/** There while knobs are held by hand: hands all of them back. */
export function HandBackAll({ narrow }: { narrow: boolean }) {
  const count = useSong(({ model }) =>
    model.tracks.reduce(
      (sum, track) => sum + track.devices.reduce((all, device) => all + Object.keys(device.held).length, 0),
      model.head.held_bpm === undefined ? 0 : 1,
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

export function ThemeButton() {
  const dark = useTheme() === "lamplight";
  const Icon = dark ? Sun : Moon;
  return (
    <IconButton label={dark ? "Daylight" : "Lamplight"} onPress={toggleTheme}>
      <Icon size={15} />
    </IconButton>
  );
}

export function ZoomButtons() {
  return (
    <>
      <IconButton label="Zoom out" onPress={() => zoomAtHand(1 / 1.4)}>
        <ZoomOut size={15} />
      </IconButton>
      <IconButton label="Zoom in" onPress={() => zoomAtHand(1.4)}>
        <ZoomIn size={15} />
      </IconButton>
    </>
  );
}
