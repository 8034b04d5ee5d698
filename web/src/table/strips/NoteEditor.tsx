import { clsx } from "clsx";
import { type PointerEvent, type RefObject, useEffect, useMemo, useRef, useState } from "react";
import type { ClipPart, Pass, Px, RegionPart, Ticks, TrackPart } from "../../api/types";
import { FOLDED_HEIGHT, VELOCITY_HEIGHT } from "../../geometry/heights";
import { type NoteRows, noteRows, rowY, velocityY } from "../../geometry/noteRows";
import { scaled } from "../../geometry/text";
import { positionText } from "../../geometry/viewport";
import { noteMenu, restOnNote } from "../../gestures/menus";
import {
  type NoteGround,
  type NotePart,
  noteAt,
  pressNote,
  pressNoteGround,
  tapNoteGround,
} from "../../gestures/notes";
import { useNotes } from "../../state/noteChoice";
import { useSong } from "../../state/song";
import { useView, viewNow } from "../../state/view";
import { setWishes, useWishes } from "../../state/wishes";
import { noteName } from "../material";
import { Words } from "./Words";

interface Props {
  track: TrackPart;
  regions: RegionPart[];
  clips: Record<string, ClipPart>;
  height: Px;
  view: [from: Ticks, to: Ticks];
}

/** Names of rows stand no nearer than this, and below the name of the track. */
const NEAREST: Px = scaled(12);
const CLEAR: Px = FOLDED_HEIGHT - 2;
const NO_PASSES: Pass[] = [];
/** So near its ends, and in its title, a press means the region; notes that lie there can still be taken. */
const EDGE: Px = 6;
const EDGE_INSIDE: Px = 8;

/** The notes of a track's clips, to be drawn and moved: rows of pitches or of a kit's sounds, and how loud each is. */
export function NoteEditor({ track, regions, clips, height, view }: Props) {
  const drums = useSong(({ catalogue }) =>
    track.devices.some(({ type }) => type === "drum-kit") ? (catalogue?.drum_sounds ?? null) : null,
  );
  const passes = useSong((state) => state.passes);
  const tried = useSong((state) => state.preview?.passes);
  const pxPerTick = useView((state) => state.pxPerTick);
  const svg = useRef<SVGSVGElement>(null);
  useNoteTouch(svg);
  const here = regions.map((region) => clips[region.clip_id]).filter(({ kind }) => kind === "notes");
  const ids = [...new Set(here.map(({ id }) => id))].join(" ");
  // The rows stay while a hand is at work, so that nothing moves away under it.
  const known = useSong(({ model }) => model.clips);
  const rows = useMemo(
    () =>
      noteRows(
        ids.split(" ").flatMap((id) => known[id] ?? []),
        drums,
        height,
      ),
    [ids, known, drums, height],
  );
  return (
    <>
      <svg
        ref={svg}
        className="over-regions absolute left-0 w-full overflow-visible"
        height={height}
        aria-label={`Notes of ${track.name}`}
      >
        {regions.map((region) =>
          ((tried?.[region.id] ?? passes[region.id]) || NO_PASSES)
            .filter(([from, to]) => to > view[0] && from < view[1] && clips[region.clip_id].kind === "notes")
            .map((pass) => (
              <NotePass
                key={`${region.id} ${pass[0]}`}
                ground={{ clip: clips[region.clip_id], pass, rows, pxPerTick }}
                ends={[pass[0] === region.start_tick, pass[1] === region.start_tick + region.length_ticks]}
                drums={drums}
                view={view}
              />
            )),
        )}
      </svg>
      <RowNames rows={rows} drums={drums} />
    </>
  );
}

interface PassProps {
  ground: NoteGround;
  /** Whether the repeat begins and ends with its region. */
  ends: [starts: boolean, stops: boolean];
  drums: Record<string, string> | null;
  view: [from: Ticks, to: Ticks];
}

/** One repeat of a clip's notes. */
function NotePass({ ground, ends, drums, view }: PassProps) {
  const { clip, pass, rows, pxPerTick } = ground;
  const [from, to, into] = pass;
  const ground_ = useRef<SVGRectElement>(null);
  const edge = Math.min(EDGE, ((to - from) * pxPerTick) / 4);
  const [before, after] = ends.map((end) => (end ? edge : 0));
  const chosen = useNotes((state) => (state.clipId === clip.id ? state.chosen : null));
  const wished = useWishes(({ note }) => (note?.clipId === clip.id && note.from === from ? note.index : null));
  const meters = useSong((state) => state.model.head.meters);
  const [aimed, setAimed] = useState<[Px, Px, string] | null>(null);
  const [foretold, setForetold] = useState<Note | null>(null);
  const named = (pitch: number) => drums?.[pitch] ?? noteName(pitch);
  const place = (event: { clientX: number; clientY: number }): [Px, Px] => {
    const box = ground_.current?.ownerSVGElement?.getBoundingClientRect() ?? { left: 0, top: 0 };
    return [event.clientX - box.left, event.clientY - box.top];
  };
  const press = (event: PointerEvent, index: number, part: NotePart) => {
    setAimed(null);
    pressNote(event, ground, index, part, place(event)[1]);
  };
  const inPx = ([before, after]: [Ticks, Ticks]): [Px, Px] => [before * pxPerTick, after * pxPerTick];
  const words = (event: PointerEvent, text: string) => setAimed([...place(event), text]);
  const seen = clip.notes
    .map((note, i) => ({ note, i, start: from + note.tick - into }))
    .filter(({ start, note }) => start >= from && start < to && start + note.length_ticks > view[0] && start < view[1]);
  return (
    <g>
      <Lines rows={rows} x={from * pxPerTick} width={(to - from) * pxPerTick} />
      {/* biome-ignore lint/a11y/noStaticElementInteractions: the notes in it take the keyboard */}
      <rect
        ref={ground_}
        x={from * pxPerTick + before}
        y={rows.top}
        width={Math.max(1, (to - from) * pxPerTick - before - after)}
        height={rows.foot - rows.top + VELOCITY_HEIGHT}
        className="ground"
        style={{ cursor: "crosshair" }}
        data-testid={`notes-${clip.id}`}
        onPointerMove={(event) => {
          const spot = place(event);
          const draws = event.pointerType !== "touch" && event.buttons === 0 && viewNow().tool === "points";
          const note = draws && spot[1] < rows.foot ? noteAt(ground, spot, null) : null;
          setForetold(note);
          if (note) words(event, `${named(note.pitch)} at ${positionText(meters, from + note.tick - into)}`);
          else setAimed(null);
        }}
        onPointerLeave={() => {
          setForetold(null);
          setAimed(null);
        }}
        onPointerDown={(event) => {
          setForetold(null);
          setAimed(null);
          if (event.button === 0) pressNoteGround(event, ground, place(event), event.pointerType === "touch");
        }}
        onClick={(event) => {
          const touch = (event.nativeEvent as globalThis.PointerEvent).pointerType === "touch";
          if (touch && viewNow().tool === "points") tapNoteGround(ground, place(event));
        }}
      />
      {foretold && (
        <rect
          x={(from + foretold.tick - into) * pxPerTick}
          y={rowY(rows, foretold.pitch) + 0.5}
          width={Math.max(3, Math.min(foretold.length_ticks, to - from - foretold.tick + into) * pxPerTick - 1)}
          height={Math.max(3, rows.height - 1)}
          rx={2}
          className="note-foretold"
          data-testid="note-foretold"
        />
      )}
      {seen.map(({ note, i, start }) => {
        const x = start * pxPerTick;
        const width = Math.max(3, Math.min(note.length_ticks, to - start) * pxPerTick - 1);
        const y = rowY(rows, note.pitch);
        const [left, right] = edgesOf(x, width, inPx(roomBeside(note, clip.notes)));
        const label = `${named(note.pitch)} at ${positionText(meters, start)}, velocity ${note.velocity}`;
        const held = chosen?.includes(i) ?? false;
        return (
          <g key={`${note.tick} ${note.pitch}`} className={clsx("note", held && "note-chosen")}>
            <rect
              x={x}
              y={y + 0.5}
              width={width}
              height={Math.max(3, rows.height - 1)}
              rx={2}
              className="note-body"
              style={{ opacity: 0.35 + (0.65 * note.velocity) / 127 }}
              role="button"
              tabIndex={-1}
              aria-label={label}
              aria-pressed={held}
              data-testid={`note-${clip.id}-${i}`}
              ref={wished === i ? takeKeyboard : undefined}
              onPointerDown={(event) => {
                restOnNote(event, clip.id, i);
                press(event, i, "body");
              }}
              onContextMenu={(event) => noteMenu(event, clip.id, i)}
              onPointerMove={(event) => words(event, label)}
              onPointerLeave={() => setAimed(null)}
            />
            <Edge {...left} y={y} height={rows.height} onPress={(event) => press(event, i, "start")} />
            <Edge {...right} y={y} height={rows.height} onPress={(event) => press(event, i, "end")} />
            <line
              x1={x + 1}
              x2={x + 1}
              y1={velocityY(rows, note.velocity)}
              y2={rows.foot + VELOCITY_HEIGHT}
              className="note-stalk"
            />
            <rect
              x={x - 4}
              y={rows.foot}
              width={10}
              height={VELOCITY_HEIGHT}
              className="ground"
              style={{ cursor: "ns-resize" }}
              data-testid={`velocity-${clip.id}-${i}`}
              onPointerDown={(event) => press(event, i, "velocity")}
            />
          </g>
        );
      })}
      {aimed && <Words x={aimed[0]} y={aimed[1]} text={aimed[2]} />}
    </g>
  );
}

/** The keyboard goes to a note it was wished to. */
function takeKeyboard(note: SVGRectElement | null): void {
  if (!note) return;
  note.focus();
  setWishes({ note: null });
}

/** The names of rows in the gutter beside the strip: the sounds of a kit, or pitches; of rows too near, some. */
function RowNames({ rows, drums }: { rows: NoteRows; drums: Record<string, string> | null }) {
  const all = drums !== null || rows.height >= NEAREST;
  let last = Number.POSITIVE_INFINITY;
  const named = [...rows.pitches]
    .reverse()
    .map((pitch) => ({ pitch, y: rowY(rows, pitch) + rows.height / 2 }))
    .filter(({ pitch, y }) => {
      const room = (all || pitch % 12 === 0) && y >= CLEAR && last - y >= NEAREST;
      if (room) last = y;
      return room;
    });
  return (
    <div className="axis-gutter" aria-hidden="true">
      {named.map(({ pitch, y }) => (
        <span
          key={pitch}
          className="faint absolute right-1.5 text-xs leading-none whitespace-nowrap"
          style={{ top: y - scaled(6) }}
        >
          {drums?.[pitch] ?? noteName(pitch)}
        </span>
      ))}
    </div>
  );
}

type Note = ClipPart["notes"][number];

/** How far the nearest notes of the same pitch are before and after a note. */
function roomBeside(note: Note, notes: Note[]): [before: Ticks, after: Ticks] {
  let [before, after] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  for (const other of notes) {
    if (other === note || other.pitch !== note.pitch) continue;
    const [start, end] = [other.tick, other.tick + other.length_ticks];
    if (end <= note.tick) before = Math.min(before, note.tick - end);
    else if (start >= note.tick + note.length_ticks) after = Math.min(after, start - note.tick - note.length_ticks);
  }
  return [before, after];
}

/** The two ends a note is stretched by: inside it, and of a short one as far beyond it as its neighbours let. */
function edgesOf(x: Px, width: Px, room: [before: Px, after: Px]): { x: Px; width: Px }[] {
  const inside = Math.min(EDGE_INSIDE, width / 3);
  const [before, after] = room.map((px) => Math.min(Math.max(0, EDGE - inside), px / 2));
  return [
    { x: x - before, width: inside + before },
    { x: x + width - inside, width: inside + after },
  ];
}

/** Where a note is taken hold of at an end. */
function Edge(props: { x: Px; y: Px; width: Px; height: Px; onPress: (event: PointerEvent) => void }) {
  const { onPress, ...box } = props;
  return <rect {...box} className="ground" style={{ cursor: "ew-resize" }} onPointerDown={onPress} />;
}

/** A faint line under every row, and one above the velocities. */
function Lines({ rows, x, width }: { rows: NoteRows; x: Px; width: Px }) {
  const path = rows.pitches.map((_, i) => `M${x} ${rows.top + i * rows.height}h${width}`).join("");
  return <path d={`${path}M${x} ${rows.foot}h${width}`} className="note-rows" />;
}

/** A finger that comes down on a note has come to move it, not to scroll. */
function useNoteTouch(svg: RefObject<SVGSVGElement | null>): void {
  useEffect(() => {
    const element = svg.current;
    const onTouch = (event: TouchEvent) => {
      if ((event.target as Element).closest(".note")) event.preventDefault();
    };
    element?.addEventListener("touchstart", onTouch, { passive: false });
    return () => element?.removeEventListener("touchstart", onTouch);
  }, [svg]);
}
