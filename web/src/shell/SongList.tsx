import { useState } from "react";
import type { ShelfEntry } from "../api/types";
import { SongEntry } from "./SongEntry";

const byName = (one: ShelfEntry, other: ShelfEntry) => one.name.localeCompare(other.name);
const ORDERS: Record<string, (one: ShelfEntry, other: ShelfEntry) => number> = {
  "changed last": (one, other) => other.updated_at.localeCompare(one.updated_at) || other.id - one.id,
  "by name": byName,
  "longest first": (one, other) => (other.seconds ?? 0) - (one.seconds ?? 0) || byName(one, other),
  "by tempo": (one, other) => (one.bpm ?? 0) - (other.bpm ?? 0) || byName(one, other),
};

export interface SongDeeds {
  rename(song: ShelfEntry, name: string): Promise<void>;
  duplicate(song: ShelfEntry): Promise<void>;
  remove(song: ShelfEntry): Promise<void>;
}

/** The songs, found by their names and put in an order. */
export function SongList({ songs, deeds }: { songs: ShelfEntry[]; deeds: SongDeeds }) {
  const [wish, setWish] = useState("");
  const [order, setOrder] = useState("changed last");
  const words = wish.toLowerCase().split(/\s+/);
  const found = songs
    .filter(({ name }) => words.every((word) => name.toLowerCase().includes(word)))
    .sort(ORDERS[order]);
  return (
    <>
      <div className="flex items-center gap-2">
        <input
          className="input input-sm grow pointer-coarse:h-11"
          type="search"
          aria-label="Find a song"
          placeholder="Find a song by its name"
          value={wish}
          onChange={(event) => setWish(event.target.value)}
        />
        <select
          className="select select-sm w-40 pointer-coarse:h-11"
          aria-label="Order of the songs"
          value={order}
          onChange={(event) => setOrder(event.target.value)}
        >
          {Object.keys(ORDERS).map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </div>
      {found.length === 0 && <p className="faint">No song has these words in its name.</p>}
      <ul className="flex flex-col gap-2" aria-label="Songs">
        {found.map((song) => (
          <SongEntry key={song.id} song={song} deeds={deeds} />
        ))}
      </ul>
    </>
  );
}
