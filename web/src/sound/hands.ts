import type { Seconds } from "../api/types";
import type { Engine } from "./engine";
import type { Rack } from "./rack";

/** While a dial glides back it is turned this often. */
const TURN_EVERY_MS = 15;

/** What hands do to dials: they turn them at once, and let go into what holds, at once or over some time. */
export class Hands {
  private readonly gliding = new Map<string, number>();
  /** Where each dial was turned to last, in the engine's unit. */
  private readonly values = new Map<string, number>();

  constructor(
    private readonly context: AudioContext,
    private readonly rack: Rack,
    private readonly engine: Engine,
    /** Puts dials that nothing moves on their knobs. */
    private readonly rest: () => void,
  ) {}

  turn(address: string, value: number): void {
    this.stopGliding(address);
    this.values.set(address, value);
    this.rack.grip(address, value, this.context.currentTime);
  }

  letGo(address: string, over: Seconds = 0): void {
    this.stopGliding(address);
    const from = this.values.get(address);
    if (from === undefined) return;
    if (over <= 0 || this.engine.drivenTo(address) === null) return this.end(address);
    const start = this.context.currentTime;
    const glide = () => {
      const share = (this.context.currentTime - start) / over;
      const goal = this.engine.drivenTo(address);
      if (share >= 1 || goal === null) return this.end(address);
      this.rack.grip(address, from + (goal - from) * share, this.context.currentTime);
    };
    this.gliding.set(address, window.setInterval(glide, TURN_EVERY_MS));
  }

  /** All of them, as when playing stops. */
  letAllGo(): void {
    for (const address of [...this.values.keys()]) this.letGo(address);
  }

  private end(address: string): void {
    this.stopGliding(address);
    this.values.delete(address);
    this.engine.letGo(address);
    this.rest();
  }

  private stopGliding(address: string): void {
    clearInterval(this.gliding.get(address));
    this.gliding.delete(address);
  }
}
