import type { Seconds, Ticks } from "../api/types";

/** The core's tick/second table, read between its corners in proportion. */
export class Clock {
  constructor(
    private readonly table: [Ticks, Seconds][] = [
      [0, 0],
      [960, 0.5],
    ],
  ) {}

  /** Whether seconds mean the same place. */
  sameAs(other: Clock): boolean {
    return (
      this.table.length === other.table.length &&
      this.table.every(([tick, seconds], i) => tick === other.table[i][0] && seconds === other.table[i][1])
    );
  }

  secondsAt(tick: Ticks): Seconds {
    return this.read(tick, 0, 1);
  }

  tickAt(seconds: Seconds): Ticks {
    return this.read(seconds, 1, 0);
  }

  private read(from: number, key: 0 | 1, value: 0 | 1): number {
    const { table } = this;
    let i = table.findIndex((corner) => corner[key] > from);
    if (i === -1) i = table.length - 1;
    i = Math.max(i, 1);
    const [a, b] = [table[i - 1], table[i]];
    return a[value] + ((from - a[key]) / (b[key] - a[key])) * (b[value] - a[value]);
  }
}
