import { useEffect, useState } from "react";
import { Refused } from "../api/client";
import { player } from "../sound/player";
import { listen } from "../state/listen";
import { openSong } from "../state/opening";
import { SendingList } from "../ui/SendingList";
import { go, useSongId } from "./route";
import { Shelf } from "./Shelf";
import { Studio } from "./Studio";

export function App() {
  const songId = useSongId();
  return (
    <>
      {songId === null ? <Shelf /> : <OpenSong key={songId} songId={songId} />}
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
    openSong(songId).then(
      () => {
        if (gone) return;
        setOpen(true);
        stop = listen(songId);
      },
      (error) => setFault(error instanceof Refused ? error.message : "The song could not be opened."),
    );
    return () => {
      gone = true;
      stop();
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
