import { clsx } from "clsx";
import { ChevronLeft, ChevronRight, Circle, Hand, Square, Triangle } from "lucide-react";
import { useEffect, useState } from "react";
import type { SurfaceState } from "../../api/handsSocket";
import { choose, openSurface, perform, useSurfaceView } from "../../state/surfaceView";
import { Needle } from "../../ui/Needle";
import { BigFader, BigKnob, BigPad } from "./Controls";

const VIEWS = { knobs: "Knobs", faders: "Faders", pad: "Pad", tracks: "Tracks" } as const;
type ViewName = keyof typeof VIEWS;

/** The phone as surface: what is turned here sounds on the desktop, where the song plays. */
export function SurfacePage({ songId }: { songId: number }) {
  const open = useSurfaceView((state) => state.open);
  const studio = useSurfaceView((state) => state.studio);
  const [view, setView] = useState<ViewName>("knobs");
  useEffect(() => openSurface(songId), [songId]);
  if (!studio) return <Waiting open={open} />;
  return (
    <main className="surface" aria-label={`Surface of ${studio.song}`}>
      <Top studio={studio} />
      <div className="flex" role="group" aria-label="What is shown">
        {(Object.keys(VIEWS) as ViewName[]).map((name) => (
          <button
            key={name}
            type="button"
            className={clsx("surface-tab", view === name && "surface-tab-open")}
            aria-pressed={view === name}
            onClick={() => setView(name)}
          >
            {VIEWS[name]}
          </button>
        ))}
      </div>
      {view === "knobs" && <Eight studio={studio} />}
      {view === "faders" && (
        <div className="surface-faders">
          {studio.faders.map((entry) => (
            <BigFader key={entry.a} entry={entry} />
          ))}
        </div>
      )}
      {view === "pad" && <BigPad pad={studio.pad} />}
      {view === "tracks" && <Tracks studio={studio} />}
    </main>
  );
}

function Waiting({ open }: { open: boolean }) {
  return (
    <main className="grid h-full place-content-center gap-3 p-6 text-center">
      <p role="status">
        {open
          ? "Open the song on the desktop and press Add a phone there: the sound is made there, the hand is here."
          : "The way to the desktop is broken off. It is tried again …"}
      </p>
    </main>
  );
}

function Top({ studio }: { studio: SurfaceState }) {
  return (
    <header className="flex items-center gap-2 p-2">
      <button
        type="button"
        className="btn btn-circle btn-neutral h-13 w-13"
        aria-label={studio.playing ? "Stop" : "Play"}
        onClick={() => perform("play")}
      >
        {studio.playing ? (
          <Square size={18} fill="currentColor" />
        ) : (
          <Triangle size={18} fill="currentColor" className="rotate-90" />
        )}
      </button>
      <button
        type="button"
        className={clsx("btn btn-circle h-13 w-13", studio.recording ? "btn-error" : "btn-outline")}
        aria-label={studio.recording ? "Stop recording" : "Record"}
        aria-pressed={studio.recording}
        onClick={() => perform("record")}
      >
        <Circle size={18} fill="currentColor" />
      </button>
      <output className="grow text-center text-2xl font-bold tabular-nums" aria-label="Position">
        {studio.position}
      </output>
      <button
        type="button"
        className="btn btn-circle h-13 w-13"
        aria-label="Hand back all"
        onClick={() => perform("hand_back")}
      >
        <Hand size={18} />
      </button>
    </header>
  );
}

/** The eight at hand, and the way to the next. */
function Eight({ studio: { set, eight } }: { studio: SurfaceState }) {
  return (
    <>
      <div className="flex items-center gap-2 px-2">
        <button
          type="button"
          className="btn h-11 w-11"
          aria-label="The eight before"
          onClick={() => choose({ page: -1 })}
        >
          <ChevronLeft size={18} />
        </button>
        <span className="grow text-center font-semibold">
          {set.name} <span className="faint font-normal">{`${set.page + 1} of ${set.pages}`}</span>
        </span>
        <button type="button" className="btn h-11 w-11" aria-label="The next eight" onClick={() => choose({ page: 1 })}>
          <ChevronRight size={18} />
        </button>
      </div>
      <div className="surface-eight">
        {eight.map((entry) => (
          <BigKnob key={entry.a} entry={entry} />
        ))}
      </div>
    </>
  );
}

/** Which track is at hand, and which are armed. */
function Tracks({ studio: { tracks, track } }: { studio: SurfaceState }) {
  return (
    <ul className="flex min-h-0 grow flex-col gap-1 overflow-auto p-2">
      {tracks.map(({ id, name, armed }) => (
        <li key={id} className="flex gap-2">
          <button
            type="button"
            className={clsx("btn h-12 grow justify-start", id === track && "btn-secondary")}
            aria-pressed={id === track}
            onClick={() => choose({ track: id })}
          >
            {name}
          </button>
          <button
            type="button"
            className={clsx("btn h-12 w-12", armed && "btn-error")}
            aria-pressed={armed}
            aria-label={`Arm ${name}`}
            onClick={() => choose({ arm: id })}
          >
            <Needle size={18} threaded={armed} />
          </button>
        </li>
      ))}
    </ul>
  );
}
