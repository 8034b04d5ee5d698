import { AudioLines, BookOpen, File as FileIcon, FilePlus2, SlidersHorizontal, Upload } from "lucide-react";
import { type ChangeEvent, useCallback, useEffect, useRef, useState } from "react";
import { newToken, Refused, shelf, songApi, work } from "../api/client";
import { useConnection } from "../api/connection";
import { CalledOff } from "../api/send";
import type { Fault, ShelfEntry } from "../api/types";
import { ControlsBox } from "../panels/ControlsBox";
import { SoundBox } from "../panels/SoundBox";
import { controlsText, showControls } from "../state/controls";
import { readKept } from "../state/keeping";
import { sendingShown } from "../state/sending";
import { showSounds } from "../state/soundList";
import { KeptStrip } from "../ui/Away";
import { Bin } from "./Bin";
import { go } from "./route";
import { SongList } from "./SongList";
import { ThemeButton } from "./TopBar";

/** The list of songs: open, make, rename, duplicate, delete, hand out and take in. */
export function Shelf() {
  const [songs, setSongs] = useState<ShelfEntry[] | null>(null);
  const [bin, setBin] = useState<ShelfEntry[]>([]);
  const [faults, setFaults] = useState<Fault[]>([]);
  const [removed, setRemoved] = useState<ShelfEntry | null>(null);
  const [busy, setBusy] = useState<string | null>(null);
  const [progress, setProgress] = useState<Progress | null>(null);
  const file = useRef<HTMLInputElement>(null);

  const run = useCallback(async (words: string, work: () => Promise<unknown>) => {
    setBusy(words);
    setFaults([]);
    try {
      await work();
      const [list, gone] = await Promise.all([shelf.list(), shelf.bin()]);
      setSongs(list);
      setBin(gone);
    } catch (error) {
      if (error instanceof CalledOff) return;
      if (!(error instanceof Refused)) throw error;
      setFaults(error.faults);
    } finally {
      setBusy(null);
    }
  }, []);
  const offline = useConnection(({ keptAt }) => keptAt !== null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again once the server is back
  useEffect(() => {
    void run("Reading the list", async () => undefined);
    void readKept();
  }, [run, offline]);

  const [leftOut, setLeftOut] = useState<string[]>([]);
  const make = (from: "beat" | "empty") =>
    run("Making a song", async () => go(`/songs/${(await shelf.make("New song", from)).id}`));
  const take = async (event: ChangeEvent<HTMLInputElement>) => {
    const [chosen] = event.target.files ?? [];
    event.target.value = "";
    if (chosen) await run(`Importing ${chosen.name}`, async () => setLeftOut(await imported(chosen, setProgress)));
  };
  const rename = (song: ShelfEntry, name: string) =>
    run("Renaming", () => songApi(song.id).edit(song.revision, "rename_song", { name }, { heard: [] }));
  const remove = (song: ShelfEntry) => run("Deleting", async () => setRemoved((await shelf.remove(song.id)) && song));
  const restore = (song: ShelfEntry) =>
    run("Bringing back", async () => setRemoved((await shelf.restore(song.id)) && null));
  const duplicate = (song: ShelfEntry) => run("Duplicating", () => shelf.duplicate(song.id));
  const forget = (song?: ShelfEntry) =>
    run("Deleting for good", async () => {
      await shelf.emptyBin(song?.id);
      setRemoved(null);
    });

  return (
    <main className="h-full overflow-auto">
      <KeptStrip />
      <div className="mx-auto flex max-w-3xl flex-col gap-4 p-5">
        <header className="flex flex-wrap items-center gap-2">
          <img src="/satchel.svg" alt="" width={34} height={34} />
          <h1 className="grow text-2xl font-bold">Kind Satchel</h1>
          <button type="button" className="btn btn-primary btn-sm" onClick={() => void make("beat")}>
            <FilePlus2 size={15} /> New song
          </button>
          <button type="button" className="btn btn-sm" onClick={() => void make("empty")}>
            <FileIcon size={15} /> Empty song
          </button>
          <button type="button" className="btn btn-sm" onClick={() => showSounds()}>
            <AudioLines size={15} /> Sounds
          </button>
          <button type="button" className="btn btn-sm" onClick={() => file.current?.click()}>
            <Upload size={15} /> Import
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-sm btn-square"
            aria-label="What MIDI controllers move"
            title="What MIDI controllers move, when a MIDI file is taken in"
            onClick={() => showControls()}
          >
            <SlidersHorizontal size={15} />
          </button>
          <input
            ref={file}
            type="file"
            accept="application/json,.json,audio/midi,.mid,.midi,application/zip,.zip"
            className="hidden"
            aria-label="Song document, packed song or MIDI file to import"
            onChange={(event) => void take(event)}
          />
          <a
            className="btn btn-ghost btn-sm btn-square"
            href="/docs"
            target="_blank"
            rel="noreferrer"
            aria-label="Guide"
            title="The guide, in ten short pages"
          >
            <BookOpen size={15} />
          </a>
          <ThemeButton />
        </header>
        <p className="faint">
          Moves live inside clips and travel with them; lanes stay with the song; the heard band shows what both make
          together.
        </p>
        {busy && <Busy words={busy} progress={progress} />}
        <FaultList faults={faults} />
        {leftOut.length > 0 && (
          <p role="status" className="rounded-box bg-base-300 px-3 py-2">
            Taken in. What the file has besides was left out: {leftOut.join(", ")}.{" "}
            <button type="button" className="underline" onClick={() => showControls()}>
              What MIDI controllers move
            </button>
          </p>
        )}
        {removed && (
          <p role="status" className="flex items-center gap-3 rounded-box bg-neutral px-3 py-2 text-neutral-content">
            {removed.name} is in the bin.
            <button type="button" className="underline" onClick={() => void restore(removed)}>
              Bring it back
            </button>
          </p>
        )}
        {songs?.length === 0 && <p>No songs yet. Make a new one, or import a song document.</p>}
        {songs && songs.length > 0 && <SongList songs={songs} deeds={{ rename, duplicate, remove }} />}
        <Bin songs={bin} deeds={{ restore, forget }} />
      </div>
      <SoundBox />
      <ControlsBox />
    </main>
  );
}

/** How far long work has come, by its token. */
interface Progress {
  token: string;
  share: number;
  words: string;
}

const PACKED = /\.zip$/i;
const MIDI = /\.midi?$/i;

/** Takes a song document or a MIDI file in; how far that is, is told as it goes. What was left out comes back. */
async function imported(file: File, tell: (progress: Progress | null) => void): Promise<string[]> {
  const token = newToken();
  tell({ token, share: 0, words: "sending" });
  const events = work.follow(token, (share, words) => tell({ token, share, words }));
  try {
    return (await taken(file, token)).left_out ?? [];
  } finally {
    events.close();
    tell(null);
  }
}

async function taken(file: File, token: string): Promise<ShelfEntry> {
  if (MIDI.test(file.name)) return shelf.importMidi(file.name.replace(MIDI, ""), file, controlsText(), token);
  if (PACKED.test(file.name)) return sendingShown(file.name, (told, stop) => shelf.importPacked(file, told, stop));
  return shelf.import(await file.text(), token);
}

function Busy({ words, progress }: { words: string; progress: Progress | null }) {
  if (!progress) return <progress className="progress" aria-label={words} />;
  return (
    <p className="flex items-center gap-3" role="status">
      <progress className="progress grow" aria-label={words} value={progress.share} max={1} />
      <span className="faint">
        {words}: {progress.words}
      </span>
      <button type="button" className="btn btn-sm" onClick={() => void work.cancel(progress.token)}>
        Cancel
      </button>
    </p>
  );
}

function FaultList({ faults }: { faults: Fault[] }) {
  if (faults.length === 0) return null;
  return (
    <ul role="alert" className="max-h-56 overflow-auto rounded-box bg-error px-3 py-2 text-error-content">
      {faults.map((fault, i) => (
        <li key={i}>
          {fault.path && <code className="mr-2">{fault.path}</code>}
          {fault.message}
        </li>
      ))}
    </ul>
  );
}
