import { useState } from "react";
import type { ShelfEntry } from "../api/types";
import { factsOf, whenText } from "./SongEntry";
import { SongPicture } from "./SongPicture";

interface Deeds {
  restore(song: ShelfEntry): Promise<void>;
  /** One song, or all of them. */
  forget(song?: ShelfEntry): Promise<void>;
}

/** Songs that were deleted: they wait here until they are brought back, or deleted for good. */
export function Bin({ songs, deeds }: { songs: ShelfEntry[]; deeds: Deeds }) {
  const [open, setOpen] = useState(false);
  const [sure, setSure] = useState(false);
  if (songs.length === 0) return null;
  const empty = () => {
    setSure(false);
    if (sure) void deeds.forget();
    else setSure(true);
  };
  return (
    <section aria-label="Bin" className="flex flex-col gap-2">
      <div className="flex items-center gap-2">
        <button type="button" className="btn btn-ghost btn-sm" aria-expanded={open} onClick={() => setOpen(!open)}>
          {`Bin · ${songs.length} song${songs.length > 1 ? "s" : ""}`}
        </button>
        {open && (
          <button type="button" className={`btn btn-sm ${sure ? "btn-error" : "btn-ghost"}`} onClick={empty}>
            {sure ? "Yes, delete them for good" : "Empty the bin"}
          </button>
        )}
      </div>
      {open && (
        <ul className="flex flex-col gap-2">
          {songs.map((song) => (
            <li
              key={song.id}
              className="flex flex-wrap items-center gap-3 rounded-box border border-base-300 p-2"
              aria-label={`${song.name}, in the bin`}
            >
              <button type="button" className="btn btn-sm" onClick={() => void deeds.restore(song)}>
                Bring back
              </button>
              <SongPicture rows={song.rows} />
              <span className="min-w-40 grow">
                {song.name}
                <span className="faint block text-xs">
                  {factsOf(song)}
                  {song.deleted_at && ` · deleted ${whenText(song.deleted_at)}`}
                </span>
              </span>
              <ForGood song={song} forget={deeds.forget} />
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** Asks once more, since nothing brings it back. */
function ForGood({ song, forget }: { song: ShelfEntry; forget: Deeds["forget"] }) {
  const [sure, setSure] = useState(false);
  return (
    <button
      type="button"
      className={`btn btn-sm ${sure ? "btn-error" : "btn-ghost"}`}
      onBlur={() => setSure(false)}
      onClick={() => (sure ? void forget(song) : setSure(true))}
    >
      {sure ? "Yes, for good" : "Delete for good"}
    </button>
  );
}
