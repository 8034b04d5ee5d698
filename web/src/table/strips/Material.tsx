import { useEffect, useRef } from "react";
import type { ClipPart, Pass } from "../../api/types";
import { useView } from "../../state/view";
import { useTheme } from "../../ui/theme";
import { drawNotes, drawWave, noteName } from "../material";
import { usePeaks } from "../peaks";

interface Props {
  clip: ClipPart;
  passes: Pass[];
  from: number;
  to: number;
  height: number;
  /** Names of the sounds of a drum kit, by note; null for other instruments. */
  drums: Record<string, string> | null;
}

/** The notes or the waveform of one region, on a canvas the size of the part in view. */
export function Material({ clip, passes, from, to, height, drums }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const pxPerTick = useView((state) => state.pxPerTick);
  const theme = useTheme();
  const sound = usePeaks(clip.audio?.sound ?? null);
  const left = from * pxPerTick;
  const width = Math.max(1, Math.ceil((to - from) * pxPerTick));

  // biome-ignore lint/correctness/useExhaustiveDependencies: worked out again just when one of these changes
  useEffect(() => {
    const element = canvas.current;
    const pen = element?.getContext("2d");
    if (!element || !pen) return;
    const dense = window.devicePixelRatio || 1;
    element.width = width * dense;
    element.height = height * dense;
    pen.scale(dense, dense);
    pen.fillStyle = getComputedStyle(element).color;
    pen.font = '12px "Figtree Variable", sans-serif';
    pen.globalAlpha = 0.3;
    for (const pass of passes) {
      if (pass[1] < from || pass[0] > to) continue;
      if (!clip.audio)
        drawNotes(pen, clip, pass, { pxPerTick }, left, height, (pitch) => drums?.[pitch] || noteName(pitch));
      else if (sound) drawWave(pen, sound, clip.audio, pass, { pxPerTick }, left, height, clip.length_ticks);
    }
  }, [clip, passes, from, to, height, width, left, pxPerTick, sound, drums, theme]);

  return <canvas ref={canvas} className="pointer-events-none absolute top-0" style={{ left: 0, width, height }} />;
}
