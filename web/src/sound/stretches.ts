import type { SoundEvent, Stretch, Ticks } from "../api/types";
import { gateOf } from "./ownEffects";

/** The names under which they are driven: the length of a quarter note, and what a step gate lets through. */
export const BEAT = "song/beat";
export const STEPS = "steps";

/** While the server is away it is asked no more often than this. */
const AGAIN_MS = 2000;

/** What the core made to be played, fetched a block of song at a time, ahead of need. */
export class Stretches {
  private blocks = new Map<number, Stretch>();
  private waiting = new Map<number, Promise<void>>();
  private age = 0;
  /** When an answer last failed to come, by block. */
  private failed = new Map<number, number>();

  constructor(
    /** Asks the core for a stretch. */
    private readonly ask: (from: Ticks, to: Ticks) => Promise<Stretch>,
    readonly blockTicks: Ticks,
    /** What has to be done before a stretch can be played. */
    private readonly prepare: (stretch: Stretch) => Promise<void>,
  ) {}

  blockOf = (tick: Ticks): number => Math.floor(tick / this.blockTicks);

  get(tick: Ticks): Stretch | undefined {
    const block = this.blockOf(tick);
    const known = this.blocks.get(block);
    if (!known) void this.fetch(block);
    return known;
  }

  /** Fetches what lies under and after a tick. */
  async ready(...ticks: Ticks[]): Promise<void> {
    await Promise.all(ticks.map((tick) => this.fetch(this.blockOf(tick))));
  }

  /** Fetches anew what was fetched, then takes it all at once, so that nothing is missing in between. */
  async renew(...ticks: Ticks[]): Promise<void> {
    const age = ++this.age;
    const wanted = [...new Set(ticks.map(this.blockOf))];
    const fresh = await Promise.all(wanted.map((block) => this.load(block)));
    if (age !== this.age) return;
    this.waiting.clear();
    this.blocks = new Map(wanted.map((block, i) => [block, fresh[i]]));
  }

  private fetch(block: number): Promise<void> {
    if (this.blocks.has(block)) return Promise.resolve();
    const known = this.waiting.get(block);
    if (known) return known;
    if (performance.now() - (this.failed.get(block) ?? Number.NEGATIVE_INFINITY) < AGAIN_MS) return Promise.resolve();
    const age = this.age;
    const asked = this.load(block).then(
      (stretch) => {
        if (age === this.age) this.blocks.set(block, stretch);
        this.waiting.delete(block);
      },
      () => {
        this.failed.set(block, performance.now());
        this.waiting.delete(block);
      },
    );
    this.waiting.set(block, asked);
    return asked;
  }

  private async load(block: number): Promise<Stretch> {
    const stretch = driven(await this.ask(block * this.blockTicks, (block + 1) * this.blockTicks));
    await this.prepare(stretch);
    return stretch;
  }
}

/** Gates of clips' own effects, step gates and the beat are driven as everything else is. */
function driven(stretch: Stretch): Stretch {
  const gates = Object.entries(stretch.gates ?? {}).map(([clipId, ramps]) => [gateOf(clipId), ramps]);
  const steps = Object.entries(stretch.steps ?? {}).map(([device, ramps]) => [`${device}/${STEPS}`, ramps]);
  const more = { ...Object.fromEntries([...gates, ...steps]), ...(stretch.beat ? { [BEAT]: stretch.beat } : {}) };
  return { ...stretch, ramps: { ...stretch.ramps, ...more } };
}

export const eventKey = (event: SoundEvent): string =>
  `${event.region_id}:${event.start_tick}:${event.pitch ?? event.sound}`;
