import type { Seconds, Ticks } from "../api/types";
import { setLevel, setPeaks, setTransport, type Transport, transportNow } from "../state/transport";
import type { Engine } from "./engine";
import type { Rack } from "./rack";

/** What moves along is drawn 20 times a second. */
const DRAWN_EVERY_MS = 50;
/** How far ahead the playhead is sent in a straight line, at most. */
const GLIDE_SECONDS = 6;
/** It is sent on this long before it arrives. */
const BEFORE_SECONDS = 0.3;
/** How far it may stray from where playing is. */
const ASIDE_SECONDS = 0.03;
/** A tempo that moves is glided over in pieces no shorter than this. */
const SHORTEST_SECONDS = 0.2;

type Glide = NonNullable<Transport["glide"]>;

/** Tells where playing is, some times a second; between, the playhead glides on by itself. */
export class Shown {
  private timer = 0;
  private samples = new Float32Array(2048);

  run(engine: Engine, rack: Rack, tickAt: (seconds: Seconds) => Ticks, meter: AnalyserNode | null): void {
    let sent = { at: 0, from: 0 };
    const look = () => {
      if (!transportNow().playing) return this.stop();
      this.tellLevel(meter);
      setPeaks(rack.peaks);
      const [now, seconds] = [performance.now(), engine.position()];
      const from = tickAt(seconds);
      const next = glideOver(engine.straightOn(GLIDE_SECONDS), seconds, tickAt);
      const playhead = Math.floor(from);
      if (!next || onItsWay(transportNow().glide, next, sent.from, (now - sent.at) / 1000, from))
        return setTransport({ playhead });
      sent = { at: now, from };
      setTransport({ playhead, glide: next });
    };
    this.stop();
    look();
    this.timer = window.setInterval(look, DRAWN_EVERY_MS);
  }

  stop(): void {
    clearInterval(this.timer);
  }

  private tellLevel(meter: AnalyserNode | null): void {
    const { samples } = this;
    meter?.getFloatTimeDomainData(samples);
    let peak = 0;
    for (let i = 0; i < samples.length; i++) peak = Math.max(peak, Math.abs(samples[i]));
    setLevel(peak);
  }
}

/** Whether a glide that began at a tick some time ago is where playing is, and need not be sent further yet. */
function onItsWay(glide: Glide | null, next: Glide, from: Ticks, gone: Seconds, tick: Ticks): boolean {
  if (!glide) return false;
  const perSecond = (glide.tick - from) / glide.seconds;
  const here = Math.min(from + perSecond * gone, glide.tick);
  const further = gone > glide.seconds - BEFORE_SECONDS && next.tick > glide.tick + 1;
  return !further && Math.abs(here - tick) <= perSecond * ASIDE_SECONDS;
}

/** As far ahead as the way is straight; null where it does not lead on. */
function glideOver(most: Seconds, from: Seconds, tickAt: (seconds: Seconds) => Ticks): Glide | null {
  if (most <= 0) return null;
  const start = tickAt(from);
  let seconds = most;
  const bends = () => {
    const [middle, end] = [tickAt(from + seconds / 2), tickAt(from + seconds)];
    return Math.abs((start + end) / 2 - middle) > ((end - start) / seconds) * ASIDE_SECONDS;
  };
  while (seconds > SHORTEST_SECONDS && bends()) seconds /= 2;
  return { tick: tickAt(from + seconds), seconds };
}
