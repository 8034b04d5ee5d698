import { useEffect, useRef, useState } from "react";
import { useShallow } from "zustand/react/shallow";
import type { Corners, EnvelopePart, Px, RegionPart, Window } from "../api/types";
import { parameterHue } from "../geometry/hue";
import { bandFor } from "../geometry/viewport";
import type { Lookup } from "../state/lookup";
import { song, useSong } from "../state/song";
import { useView } from "../state/view";
import { useTheme } from "../ui/theme";
import { drawLater } from "./drawQueue";
import { drawStitches } from "./stitches";

const TILE: Px = 800;
const TOP: Px = 9;

interface Props {
  regions: RegionPart[];
  find: Lookup;
  view: [from: number, to: number];
  height: Px;
}

type Line = [envelope: EnvelopePart, corners: Corners, windows: Window[]];

/** The envelopes of a folded row's regions, drawn small on tiles, so that scrolling draws only what is new. */
export function FoldedCurves({ regions, find, view, height }: Props) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const parts = useSong(
    useShallow(({ curves, windows, preview }) =>
      regions.flatMap((region) =>
        (find.envelopes[`clip/${region.clip_id}`] ?? []).flatMap((envelope) => [
          envelope,
          preview?.curves[envelope.id] ?? curves[envelope.id],
          (preview?.windows[region.id] ?? windows[region.id])?.[envelope.id],
        ]),
      ),
    ),
  );
  const lines: Line[] = [];
  for (let i = 0; i < parts.length; i += 3) if (parts[i + 1] && parts[i + 2]) lines.push(parts.slice(i, i + 3) as Line);
  const first = Math.floor((view[0] * pxPerTick) / TILE);
  const count = Math.ceil((view[1] * pxPerTick) / TILE) - first;
  return Array.from({ length: count }, (_, i) => (
    <Tile
      key={first + i}
      left={(first + i) * TILE}
      lines={inTile(lines, ((first + i) * TILE) / pxPerTick, TILE / pxPerTick)}
      height={height}
    />
  ));
}

const inTile = (lines: Line[], from: number, length: number): Line[] =>
  lines.filter(([, , windows]) => windows.some((window) => window[0] < from + length && window[1] > from));

/** Drawn once, then shown as a picture: pictures scroll with the page, while every canvas would be laid over it anew each frame. */
function Tile({ left, lines, height }: { left: Px; lines: Line[]; height: Px }) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const theme = useTheme();
  const drawn = useRef<unknown[]>([]);
  const [picture, setPicture] = useState<string | null>(null);
  useEffect(() => {
    const wanted = [theme, pxPerTick, height, ...lines.flat()];
    if (wanted.length === drawn.current.length && wanted.every((part, i) => part === drawn.current[i])) return;
    drawn.current = wanted;
    if (lines.length === 0) return setPicture(null);
    // While something is being tried the picture must be there at once.
    if (song().preview) return setPicture(draw(lines, pxPerTick, left, height).toDataURL());
    const still = () => drawn.current === wanted;
    drawLater(() => {
      if (!still()) return;
      const canvas = draw(lines, pxPerTick, left, height);
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

function draw(lines: Line[], pxPerTick: number, left: Px, height: Px): HTMLCanvasElement {
  const canvas = document.createElement("canvas");
  const dense = window.devicePixelRatio || 1;
  canvas.width = TILE * dense;
  canvas.height = height * dense;
  const pen = canvas.getContext("2d") as CanvasRenderingContext2D;
  pen.scale(dense, dense);
  const style = getComputedStyle(document.documentElement);
  for (const [envelope, corners, windows] of lines) {
    pen.fillStyle = style.getPropertyValue(`--${parameterHue(envelope.target)}`);
    pen.globalAlpha = envelope.on ? 1 : 0.35;
    drawStitches(pen, corners, windows, pxPerTick, left, TILE, bandFor(envelope.role, height - TOP), TOP);
  }
  return canvas;
}
