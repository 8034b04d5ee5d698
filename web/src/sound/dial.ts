import { cornerBefore, heightAt } from "../geometry/corners";

/** Ramps of one parameter: seconds, value in the engine's unit, ... (corners; two on one second are a jump). */
export type Ramps = number[];

/** The value of ramps at a second; level beyond their ends, the later one at a jump. */
export function valueAt(ramps: Ramps, seconds: number): number {
  let i = 0;
  while (i + 2 < ramps.length && ramps[i + 2] <= seconds) i += 2;
  if (i + 2 >= ramps.length || ramps[i] >= seconds) return ramps[i + 1];
  return ramps[i + 1] + ((ramps[i + 3] - ramps[i + 1]) * (seconds - ramps[i])) / (ramps[i + 2] - ramps[i]);
}

/** A jump takes this long, so that it does not click. */
const JUMP_SECONDS = 0.004;
/** A change of plan is reached this softly. */
const TURN_SECONDS = 0.015;

/** Something a parameter turns: driven along ramps, or put on a value. */
export interface Dial {
  /** Follows ramps over a slice of song time; `lead` is context time minus song time. */
  follow(ramps: Ramps, from: number, to: number, lead: number): void;
  /** Drops what is planned after a moment and goes on from there. */
  replan(at: number, value: number): void;
  /** Rests on a value from now on. */
  rest(value: number, now: number): void;
}

/** A dial over Web Audio parameters. `map` turns the engine's unit into the parameter's. */
export class ParamDial implements Dial {
  /** The value it rests on; null while it is driven, or before it was put anywhere. */
  private resting: number | null = null;

  constructor(
    private readonly params: AudioParam[],
    private readonly map: (value: number) => number = (value) => value,
    private readonly jump = JUMP_SECONDS,
  ) {}

  follow(ramps: Ramps, from: number, to: number, lead: number): void {
    this.resting = null;
    let i = cornerBefore(ramps, from) + 1;
    for (; i * 2 < ramps.length && ramps[i * 2] <= to; i++) {
      const [seconds, value] = [ramps[i * 2], this.map(ramps[i * 2 + 1])];
      const jumps = i > 0 && ramps[i * 2 - 2] === seconds;
      this.each((param) => param.linearRampToValueAtTime(value, seconds + lead + (jumps ? this.jump : 0)));
    }
    const last = heightAt(ramps, to);
    const justJumped = i > 0 && ramps[i * 2 - 2] > to - this.jump;
    if (last !== null && !justJumped) this.each((param) => param.linearRampToValueAtTime(this.map(last), to + lead));
  }

  replan(at: number, value: number): void {
    this.resting = null;
    this.each((param) => {
      if (param.cancelAndHoldAtTime) param.cancelAndHoldAtTime(at);
      else param.cancelScheduledValues(at).setValueAtTime(param.value, at);
      param.linearRampToValueAtTime(this.map(value), at + TURN_SECONDS);
    });
  }

  /** Turns another parameter along, from where it is now. */
  turnAlso(param: AudioParam): void {
    param.value = this.params[0].value;
    this.params.push(param);
  }

  /** By a ramp that ends: a parameter on its way for ever is worked out for every sample. */
  rest(value: number, now: number): void {
    if (this.resting === value) return;
    this.resting = value;
    this.each((param) => {
      param.cancelScheduledValues(now);
      param.setValueAtTime(param.value, now);
      param.linearRampToValueAtTime(this.map(value), now + TURN_SECONDS);
    });
  }

  private each(act: (param: AudioParam) => void): void {
    for (const param of this.params) act(param);
  }
}

/** Several dials turned as one. */
export class ManyDial implements Dial {
  constructor(private readonly dials: Dial[]) {}

  follow(ramps: Ramps, from: number, to: number, lead: number): void {
    for (const dial of this.dials) dial.follow(ramps, from, to, lead);
  }

  replan(at: number, value: number): void {
    for (const dial of this.dials) dial.replan(at, value);
  }

  rest(value: number, now: number): void {
    for (const dial of this.dials) dial.rest(value, now);
  }
}

/** What can no longer be heard is let go of so much later. */
const AFTER_MS = 120;

/** How much later in a context: at once in one where time does not go by itself. */
export const afterMs = (context: BaseAudioContext): number => (context instanceof OfflineAudioContext ? 0 : AFTER_MS);

/** A dial whose part of the sound graph hangs in it only while it is heard; `heard` tells whether a value is. */
export class SwitchedDial implements Dial {
  private timer = 0;

  constructor(
    private readonly dial: Dial,
    private readonly heard: (value: number) => boolean,
    private readonly hang: (on: boolean) => void,
    private on = false,
    /** Where time does not go by itself nothing is heard yet when it is put to rest: it is let go of at once. */
    private readonly afterMs = AFTER_MS,
  ) {
    if (on) hang(true);
  }

  follow(ramps: Ramps, from: number, to: number, lead: number): void {
    this.turn(true);
    this.dial.follow(ramps, from, to, lead);
  }

  replan(at: number, value: number): void {
    this.turn(true);
    this.dial.replan(at, value);
  }

  rest(value: number, now: number): void {
    if (this.heard(value)) this.turn(true);
    else if (this.on && this.afterMs === 0) this.turn(false);
    else if (this.on && !this.timer) this.timer = window.setTimeout(() => this.turn(false), this.afterMs);
    this.dial.rest(value, now);
  }

  private turn(on: boolean): void {
    clearTimeout(this.timer);
    this.timer = 0;
    if (on !== this.on) this.hang(on);
    this.on = on;
  }
}

/** A dial that is read once for every note. */
export class NoteDial implements Dial {
  private ramps: Ramps = [];
  private value: number;

  constructor(value: number) {
    this.value = value;
  }

  follow(ramps: Ramps): void {
    this.ramps = ramps;
  }

  replan(): void {}

  rest(value: number): void {
    this.value = value;
    this.ramps = [];
  }

  /** The value for a note that starts at a moment of song time. */
  at(seconds: number): number {
    return heightAt(this.ramps, seconds) ?? this.value;
  }
}
