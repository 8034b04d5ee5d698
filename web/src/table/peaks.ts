import { useEffect, useState } from "react";

const COUNT = 1200;
const known = new Map<string, Promise<{ peaks: number[]; seconds: number }>>();

async function read(id: string): Promise<{ peaks: number[]; seconds: number }> {
  const context = new OfflineAudioContext(1, 1, 22050);
  const buffer = await context.decodeAudioData(await (await fetch(`/sounds/${id}.wav`)).arrayBuffer());
  const samples = buffer.getChannelData(0);
  const step = samples.length / COUNT;
  const peaks = Array.from({ length: COUNT }, (_, i) => {
    let peak = 0;
    for (let k = Math.floor(i * step); k < (i + 1) * step; k += 4) peak = Math.max(peak, Math.abs(samples[k]));
    return peak;
  });
  return { peaks, seconds: buffer.duration };
}

/** The outline of a recorded sound, null until it is known. */
export function usePeaks(id: string | null): { peaks: number[]; seconds: number } | null {
  const [found, setFound] = useState<{ peaks: number[]; seconds: number } | null>(null);
  useEffect(() => {
    if (!id) return;
    let gone = false;
    if (!known.has(id)) known.set(id, read(id));
    known.get(id)?.then(
      (peaks) => !gone && setFound(peaks),
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [id]);
  return found;
}
