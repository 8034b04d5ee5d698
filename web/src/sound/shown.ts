import type { Ticks } from "../api/types";
import { setLevel, setPeaks, setTransport, transportNow } from "../state/transport";
import type { Engine } from "./engine";
import type { Rack } from "./rack";

/** What moves along is drawn in every so-manyth frame: 20 times a second. */
const DRAWN_EVERY = 3;
/** So far ahead the playhead is sent in a straight line. */
const GLIDE_SECONDS = 0.4;

/** Tells where playing is, in every third frame; between, the playhead glides on by itself. */
export class Shown {
  private frame = 0;
  private samples = new Float32Array(2048);

  run(engine: Engine, rack: Rack, tickAt: (seconds: number) => Ticks, meter: AnalyserNode | null): void {
    let frames = 0;
    let until = 0;
    const look = (now: number) => {
      if (!transportNow().playing) return;
      if (frames++ % DRAWN_EVERY === 0) {
        this.tellLevel(meter);
        setPeaks(rack.peaks);
        const seconds = engine.position();
        const jumped = tickAt(seconds) < transportNow().playhead;
        const glide = now >= until || jumped ? glideOver(engine.straightOn(GLIDE_SECONDS), seconds, tickAt) : undefined;
        if (glide) until = now + (glide.seconds * 1000) / 2;
        setTransport({ playhead: Math.floor(tickAt(seconds)), ...(glide ? { glide } : {}) });
      }
      this.frame = requestAnimationFrame(look);
    };
    look(performance.now());
  }

  stop(): void {
    cancelAnimationFrame(this.frame);
  }

  private tellLevel(meter: AnalyserNode | null): void {
    meter?.getFloatTimeDomainData(this.samples);
    let peak = 0;
    for (const sample of this.samples) if (Math.abs(sample) > peak) peak = Math.abs(sample);
    setLevel(peak);
  }
}

const glideOver = (ahead: number, from: number, tickAt: (seconds: number) => Ticks) => ({
  tick: tickAt(from + ahead),
  seconds: ahead,
});
