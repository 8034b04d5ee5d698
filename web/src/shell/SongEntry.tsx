import { Copy, Download, Package, Trash2 } from "lucide-react";
import { shelf } from "../api/client";
import type { ShelfEntry } from "../api/types";
import { useKept } from "../state/keeping";
import { TextField } from "../ui/Fields";
import { IconButton } from "../ui/IconButton";
import { go } from "./route";
import type { SongDeeds } from "./SongList";
import { SongPicture } from "./SongPicture";

/** Minutes and seconds. */
function lengthText(seconds: number): string {
  const whole = Math.round(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

const DAY_MS = 86_400_000;

/** When that was, as people say it. */
export function whenText(moment: string, now = Date.now()): string {
  const at = new Date(moment);
  const clock = at.toLocaleTimeString("en", { hour: "2-digit", minute: "2-digit", hour12: false });
  const days = Math.floor(new Date(now).setHours(0, 0, 0, 0) / DAY_MS) - Math.floor(at.setHours(0, 0, 0, 0) / DAY_MS);
  if (days === 0) return `today ${clock}`;
  if (days === 1) return `yesterday ${clock}`;
  return new Date(moment).toLocaleDateString("en", { day: "numeric", month: "short", year: "numeric" });
}

/** What is told of a song besides its name. */
export function factsOf({ seconds, bpm, meter }: ShelfEntry): string {
  if (seconds === undefined || bpm === undefined) return "cannot be read";
  return `${lengthText(seconds)} · ${Number(bpm.toFixed(2))} BPM · ${meter}`;
}

/** One song of the list. */
export function SongEntry({ song, deeds }: { song: ShelfEntry; deeds: SongDeeds }) {
  const kept = useKept(({ songId }) => songId === song.id);
  return (
    <li
      className="flex flex-wrap items-center gap-x-3 gap-y-1 rounded-box border border-base-300 bg-base-100 p-2"
      aria-label={song.name}
    >
      <button type="button" className="btn btn-sm" onClick={() => go(`/songs/${song.id}`)}>
        Open
      </button>
      <SongPicture rows={song.rows} />
      <div className="min-w-40 grow max-sm:order-1 max-sm:w-full">
        <TextField
          label={`Name of ${song.name}`}
          value={song.name}
          onCommit={(name) => deeds.rename(song, name)}
          className="input-ghost h-7 w-full font-semibold"
        />
        <p className="faint px-1.5 text-xs">
          {factsOf(song)} · {whenText(song.updated_at)}
          {kept && <span title="Opens in this browser while the server is away too"> · kept for offline</span>}
        </p>
      </div>
      <span className="flex">
        <IconButton label={`Duplicate ${song.name}`} onPress={() => void deeds.duplicate(song)}>
          <Copy size={15} />
        </IconButton>
        <a
          className="btn btn-ghost btn-sm btn-square"
          href={shelf.exportPath(song.id)}
          download
          aria-label={`Export ${song.name}`}
          title="Export as a song document"
        >
          <Download size={15} />
        </a>
        <a
          className="btn btn-ghost btn-sm btn-square"
          href={shelf.packedPath(song.id)}
          download
          aria-label={`Pack ${song.name}`}
          title="Export packed: the document and its sounds in one file"
        >
          <Package size={15} />
        </a>
        <IconButton label={`Delete ${song.name}`} onPress={() => void deeds.remove(song)}>
          <Trash2 size={15} />
        </IconButton>
      </span>
    </li>
  );
}
