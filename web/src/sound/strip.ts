import type { ClipPart, TrackPart } from "../api/types";
import { Chain, type Link, relink } from "./chain";
import type { Studio } from "./devices";
import { afterMs, type Dial, ManyDial, ParamDial, SwitchedDial } from "./dial";
import { OwnEffects } from "./ownEffects";
import { between, type DeviceSound, gain } from "./parts";

/**
 * One track of the sound graph: an input, its instrument, the effects of its clips, its own effects, its channel, and
 * a gate that is shut while it is not listened to.
 */
export class Strip {
  readonly input: GainNode;
  readonly output: GainNode;
  /** Shut while the track is not listened to. */
  readonly gate: Dial;
  /** Around all effects of the chain. */
  private readonly effects: Record<"wet" | "dry", GainNode>;
  private readonly effectsOn: Dial;
  /** From the instrument past the effects of clips. */
  private readonly past: GainNode;
  private readonly chain: Chain;
  private readonly own = new Map<string, OwnEffects>();
  private links: Link[] = [];

  constructor(
    private readonly studio: Studio,
    private readonly trackId: string,
  ) {
    this.input = gain(studio.context, 1);
    this.output = gain(studio.context, 1);
    this.gate = new ParamDial([this.output.gain]);
    this.past = gain(studio.context, 1);
    this.effects = { wet: gain(studio.context, 1), dry: gain(studio.context, 0) };
    const { wet, dry } = this.effects;
    const past = new ParamDial([dry.gain], (share) => 1 - share);
    const hang = between(this.input, dry);
    this.effectsOn = new ManyDial([
      new ParamDial([wet.gain]),
      new SwitchedDial(past, (share) => share < 1, hang, false, afterMs(studio.context)),
    ]);
    this.chain = new Chain(studio, trackId);
  }

  get instrument(): DeviceSound | undefined {
    return this.chain.instrument;
  }

  /** Where what is recorded in a clip goes first, when that has effects of its own. */
  entry(clipId: string): AudioNode | undefined {
    return this.own.get(clipId)?.input;
  }

  /** By how many seconds what comes out is later. */
  get latency(): number {
    return this.chain.latency;
  }

  /** Parts that can be sent by themselves, each with the start of its sends' ids. */
  *taps(): Generator<[string, AudioNode]> {
    for (const [id, { taps }] of this.chain.sounds())
      for (const [part, node] of taps ?? []) yield [`${this.trackId}/${id}/${part}-`, node];
  }

  /** Every device of the track and of its clips. */
  *sounds(): Generator<DeviceSound> {
    for (const [, sound] of this.chain.sounds()) yield sound;
    for (const own of this.own.values()) yield* own.sounds();
  }

  /** What makes its channel louder and softer. */
  get fader(): DeviceSound["fader"] {
    return [...this.chain.sounds()].find(([, { fader }]) => fader)?.[1].fader;
  }

  /** Dials by address. */
  *dials(): Generator<[string, Dial]> {
    yield [`${this.trackId}/channel/effects`, this.effectsOn];
    yield* this.chain.dials();
    for (const own of this.own.values()) yield* own.dials();
  }

  /**
   * Follows the track's chain, and those of its clips: what stays goes on sounding, what is new comes in, what is gone
   * goes out. Returns whether anything changed.
   */
  follow(devices: TrackPart["devices"], clips: ClipPart[]): boolean {
    const sounding = this.instrument;
    const changed = this.chain.differs(devices);
    if (changed) this.chain.take(devices);
    this.chain.hold(devices);
    const replaced = this.instrument !== sounding;
    const gone = this.leave(clips, replaced);
    const others = this.followClips(clips);
    if (!changed && !others && gone.length === 0) return false;
    const before = this.links;
    this.links = this.wanted();
    relink(before, this.links);
    for (const own of gone) own.dispose();
    return true;
  }

  dispose(): void {
    relink(this.links, []);
    this.output.disconnect();
    for (const own of this.own.values()) own.dispose();
  }

  /** Effects of clips that have none any more, or had another instrument. */
  private leave(clips: ClipPart[], replaced: boolean): OwnEffects[] {
    const known = new Set(clips.map(({ id }) => id));
    const gone = [...this.own].filter(([id]) => replaced || !known.has(id));
    for (const [id] of gone) this.own.delete(id);
    return gone.map(([, own]) => own);
  }

  private followClips(clips: ClipPart[]): boolean {
    let changed = false;
    for (const clip of clips) {
      const own = this.own.get(clip.id) ?? new OwnEffects(this.studio, clip.id, this.byNotes ? this.past.gain : null);
      if (!this.own.has(clip.id) || own.differs(clip)) changed = true;
      own.take(clip);
      this.own.set(clip.id, own);
    }
    return changed;
  }

  /** Whether the instrument is led through the effects of clips as a whole; else its voices are, one by one. */
  private get byNotes(): boolean {
    return !this.instrument?.entry;
  }

  /** Where the effects of clips lead. */
  private get start(): AudioNode {
    return this.instrument?.entry ?? this.input;
  }

  /** What hangs together, from the input to the output: before the channel all effects, or none, by one switch. */
  private wanted(): Link[] {
    const links: Link[] = [];
    const { wet, dry } = this.effects;
    if (this.instrument && this.own.size > 0) links.push([this.instrument.output, this.past], [this.past, this.input]);
    else if (this.instrument) links.push([this.instrument.output, this.input]);
    for (const own of this.own.values()) {
      if (this.instrument && this.byNotes) links.push([this.instrument.output, own.input]);
      links.push(...own.links(this.start));
    }
    let end: AudioNode = this.input;
    for (const { sound, type } of this.chain.effects()) {
      const input = sound.input as AudioNode;
      if (type !== "channel") links.push([end, input]);
      else links.push([end, wet], [wet, input], [dry, input]);
      end = sound.output;
    }
    links.push([end, this.output]);
    return links;
  }
}
