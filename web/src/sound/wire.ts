const LONGEST_SECONDS = 2;

/** One way of the sound graph, which may wait so that what comes on other ways arrives with it. */
export class Wire {
  private late: DelayNode | null = null;

  constructor(
    private readonly from: AudioNode,
    readonly to: AudioNode,
  ) {
    from.connect(to);
  }

  wait(seconds: number): void {
    if (!this.late && seconds > 0) {
      this.late = new DelayNode(this.from.context, { maxDelayTime: LONGEST_SECONDS });
      this.from.disconnect(this.to);
      this.from.connect(this.late).connect(this.to);
    }
    if (this.late) this.late.delayTime.value = Math.min(seconds, LONGEST_SECONDS);
  }

  cut(): void {
    this.from.disconnect(this.late ?? this.to);
    this.late?.disconnect();
  }
}

/** A track as far as it matters when its sound arrives. */
interface Way {
  id: string;
  kind: string;
  output: string | null;
}

/**
 * When sound arrives at each track and leaves it, in seconds after the instruments, so that all that meet somewhere
 * have come in step. `own` is by how much a track itself is late.
 */
export function arrivals(tracks: Way[], own: (id: string) => number): Map<string, { into: number; out: number }> {
  const found = new Map<string, { into: number; out: number }>();
  const settle = ({ id }: Way, into: number) => found.set(id, { into, out: into + own(id) });
  const sources = tracks.filter(({ kind }) => kind === "notes" || kind === "audio");
  for (const track of sources) settle(track, 0);
  const sent = Math.max(0, ...sources.map(({ id }) => own(id)));
  const returns = tracks.filter(({ kind }) => kind === "return");
  for (const track of returns) settle(track, sent);
  for (const track of tracks.filter(({ kind }) => kind === "group" || kind === "master")) {
    const feeders = tracks.filter(({ output }) => output === track.id);
    settle(track, Math.max(0, ...feeders.map(({ id }) => found.get(id)?.out ?? 0)));
  }
  return found;
}
