import { useEffect, useRef, useState } from "react";
import { useShallow } from "zustand/react/shallow";
import type { ClipPart, Corners, EnvelopePart, Pass, Px, RegionPart, Window } from "../api/types";
import { parameterHue } from "../geometry/hue";
import { bandFor } from "../geometry/viewport";
import type { Lookup } from "../state/lookup";
import { song, useSong } from "../state/song";
import { useView } from "../state/view";
import { useTheme } from "../ui/theme";
import { drawLater } from "./drawQueue";
import { drawNotesSmall, drawWave } from "./material";
import { type Outline, usePeaksOf } from "./peaks";
import { drawStitches } from "./stitches";

const TILE: Px = 800;
const TOP: Px = 9;

interface Props {
  regions: RegionPart[];
  clips: Record<string, ClipPart>;
  find: Lookup;
  view: [from: number, to: number];
  height: Px;
  hue: string;
}

type Line = [envelope: EnvelopePart, corners: Corners, windows: Window[], acts: boolean];
/** What a region plays: its clip, the passes of it, and the outline of its sound where that is known. */
type Played = [clip: ClipPart, passes: Pass[], sound: Outline | null];

interface Drawn {
  lines: Line[];
  played: Played[];
}

/**
 * The material of a folded row's regions and their envelopes, drawn small on tiles, so that scrolling draws only what
 * is new.
 */
export function FoldedRow({ regions, clips, find, view, height, hue }: Props) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const parts = useSong(
    useShallow(({ curves, windows, preview, rested }) =>
      regions.flatMap((region) =>
        (find.envelopes[`clip/${region.clip_id}`] ?? []).flatMap((envelope) => [
          envelope,
          preview?.curves[envelope.id] ?? curves[envelope.id],
          (preview?.windows[region.id] ?? windows[region.id])?.[envelope.id],
          envelope.on && !rested.includes(envelope.id),
        ]),
      ),
    ),
  );
  const passesOf = useSong(
    useShallow(({ passes, preview }) => regions.map(({ id }) => preview?.passes[id] ?? passes[id])),
  );
  const lines: Line[] = [];
  for (let i = 0; i < parts.length; i += 4) if (parts[i + 1] && parts[i + 2]) lines.push(parts.slice(i, i + 4) as Line);
  const sounds = usePeaksOf([...new Set(regions.flatMap((region) => clips[region.clip_id].audio?.sound ?? []))]);
  const played = regions.flatMap((region, i): Played[] => {
    const clip = clips[region.clip_id];
    const passes = passesOf[i]?.filter((pass) => pass[1] > view[0] && pass[0] < view[1]);
    if (!passes || region.muted || (clip.notes.length === 0 && !clip.audio)) return [];
    return [[clip, passes, (clip.audio && sounds[clip.audio.sound]) ?? null]];
  });
  const first = Math.floor((view[0] * pxPerTick) / TILE);
  const count = Math.ceil((view[1] * pxPerTick) / TILE) - first;
  return Array.from({ length: count }, (_, i) => (
    <Tile
      key={first + i}
      left={(first + i) * TILE}
      {...inTile({ lines, played }, ((first + i) * TILE) / pxPerTick, TILE / pxPerTick)}
      height={height}
      hue={hue}
    />
  ));
}

const inTile = ({ lines, played }: Drawn, from: number, length: number): Drawn => {
  const meets = (stretches: [number, number, ...number[]][]) =>
    stretches.some(([start, end]) => start < from + length && end > from);
  return {
    lines: lines.filter(([, , windows]) => meets(windows)),
    played: played.filter(([, passes]) => meets(passes)),
  };
};

/**
 * Drawn once, then shown as a picture: pictures scroll with the page, while every canvas would be laid over it anew
 * each frame.
 */
function Tile({ left, lines, played, height, hue }: { left: Px; height: Px; hue: string } & Drawn) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const theme = useTheme();
  const drawn = useRef<unknown[]>([]);
  const [picture, setPicture] = useState<string | null>(null);
  useEffect(() => {
    const wanted = [
      theme,
      pxPerTick,
      height,
      hue,
      ...lines.flat(),
      ...played.flatMap(([clip, passes, sound]) => [clip, sound, ...passes]),
    ];
    if (wanted.length === drawn.current.length && wanted.every((part, i) => part === drawn.current[i])) return;
    drawn.current = wanted;
    if (lines.length + played.length === 0) return setPicture(null);
    // While something is being tried the picture must be there at once.
    if (song().preview) return setPicture(draw({ lines, played }, pxPerTick, left, height, hue).toDataURL());
    const still = () => drawn.current === wanted;
    drawLater(() => {
      if (!still()) return;
      const canvas = draw({ lines, played }, pxPerTick, left, height, hue);
      canvas.toBlob((blob) => blob && still() && setPicture(URL.createObjectURL(blob)));
    });
  });
  useEffect(() => () => void (picture && URL.revokeObjectURL(picture)), [picture]);
  return (
    picture && (
      <img
        src={picture}
        alt=""
        decoding="sync"
        className="pointer-events-none absolute top-0 max-w-none"
        style={{ left, width: TILE, height }}
      />
    )
  );
}

function draw({ lines, played }: Drawn, pxPerTick: number, left: Px, height: Px, hue: string): HTMLCanvasElement {
  const canvas = document.createElement("canvas");
  const dense = window.devicePixelRatio || 1;
  canvas.width = TILE * dense;
  canvas.height = height * dense;
  const pen = canvas.getContext("2d") as CanvasRenderingContext2D;
  pen.scale(dense, dense);
  const style = getComputedStyle(document.documentElement);
  pen.fillStyle = style.getPropertyValue(`--${hue}`);
  pen.globalAlpha = 0.34;
  for (const [clip, passes, sound] of played)
    for (const pass of passes) {
      if (!clip.audio) drawNotesSmall(pen, clip, pass, { pxPerTick }, left, height);
      else if (sound) drawWave(pen, sound, clip.audio, pass, { pxPerTick }, left, height, clip.length_ticks);
    }
  for (const [envelope, corners, windows, acts] of lines) {
    pen.fillStyle = style.getPropertyValue(`--${parameterHue(envelope.target)}`);
    pen.globalAlpha = acts ? 1 : 0.35;
    drawStitches(pen, corners, windows, pxPerTick, left, TILE, bandFor(envelope.role, height - TOP), TOP);
  }
  return canvas;
}
