import { useEffect, useState } from "react";
import { Refused } from "../api/client";
import { closeToSurfaces } from "../gestures/studioSurface";
import { player } from "../sound/player";
import { listen } from "../state/listen";
import { openSong } from "../state/opening";
import { Later, Part } from "../ui/later";
import { SendingList } from "../ui/SendingList";
import { isNarrow } from "../ui/useNarrow";
import { fetchPanel, fetchPanels } from "./Panel";
import { go, useSongId, useSurfaceOf } from "./route";
import { Studio } from "./Studio";

const SHELF = new Part(async () => (await import("./Shelf")).Shelf);
const SURFACE = new Part(async () => (await import("./surface/SurfacePage")).SurfacePage);

export function App() {
  const songId = useSongId();
  const surfaceOf = useSurfaceOf();
  if (surfaceOf !== null) return <Later part={SURFACE} props={{ songId: surfaceOf }} />;
  return (
    <>
      {songId === null ? <Later part={SHELF} props={{}} /> : <OpenSong key={songId} songId={songId} />}
      <SendingList />
    </>
  );
}

function OpenSong({ songId }: { songId: number }) {
  const [fault, setFault] = useState<string | null>(null);
  const [open, setOpen] = useState(false);

  useEffect(() => {
    let stop = () => {};
    let gone = false;
    if (!isNarrow()) fetchPanel("at-hand");
    openSong(songId).then(
      () => {
        if (gone) return;
        setOpen(true);
        stop = listen(songId);
        fetchPanels();
      },
      (error) => setFault(error instanceof Refused ? error.message : "The song could not be opened."),
    );
    return () => {
      gone = true;
      stop();
      closeToSurfaces();
      player.stop();
    };
  }, [songId]);

  if (fault) return <Message words={fault} />;
  return open ? <Studio /> : <Message words="Opening the song…" busy />;
}

function Message({ words, busy = false }: { words: string; busy?: boolean }) {
  return (
    <main className="grid h-full place-content-center gap-3 text-center">
      {busy && <progress className="progress w-56" aria-label={words} />}
      <p role="status">{words}</p>
      {!busy && (
        <button type="button" className="btn btn-sm" onClick={() => go("/")}>
          To the list of songs
        </button>
      )}
    </main>
  );
}
