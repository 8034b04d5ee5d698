import type { TrackPart } from "../api/types";
import { afterMs, type Dial, ParamDial, SwitchedDial } from "./dial";
import { between, gain } from "./parts";
import type { Strip } from "./strip";
import { Wire } from "./wire";

interface Send {
  from: string;
  to: string;
  source: AudioNode;
  node: GainNode;
  /** It hangs in the graph only while it sends something. */
  dial: Dial;
  hangs(): boolean;
  /** What leads on to the return. */
  wire: Wire;
}

/** What parts of a kit send to one return goes through here: it follows the channel's fader, and its gate. */
interface Bus {
  from: string;
  to: string;
  follow: GainNode;
  gate: Dial;
  wire: Wire;
}

/** All sends of a song: those of whole channels, after their faders, and those of parts of a kit, before the chain. */
export class Sends {
  private readonly sends = new Map<string, Send>();
  private readonly parts = new Map<string, Send>();
  private readonly buses = new Map<string, Bus>();

  constructor(
    private readonly context: BaseAudioContext,
    private readonly prefix: string,
  ) {}

  /** Returns whether anything changed. */
  follow(tracks: TrackPart[], strips: Map<string, Strip>): boolean {
    const returns = tracks.filter(({ kind }) => kind === "return");
    const wanted = new Set<string>();
    let changed = false;
    for (const track of tracks.filter(({ kind }) => kind === "notes" || kind === "audio")) {
      const strip = strips.get(track.id) as Strip;
      for (const { id: to } of returns) {
        const goal = (strips.get(to) as Strip).input;
        const address = `${track.id}/channel/${this.prefix}${to}`;
        if (this.put(this.sends, address, track.id, to, strip.output, () => goal)) changed = true;
        for (const [start, tap] of strip.taps()) {
          const key = `${start}${this.prefix}${to}`;
          wanted.add(key);
          if (this.put(this.parts, key, track.id, to, tap, () => this.bus(track.id, to, strip, goal))) changed = true;
        }
      }
    }
    for (const [key, send] of this.parts) if (!wanted.has(key)) changed = this.cut(this.parts, key, send);
    return changed;
  }

  *dials(): Generator<[string, Dial]> {
    for (const [address, { dial }] of [...this.sends, ...this.parts]) yield [address, dial];
  }

  /** Lets sends wait: after a channel for as long as is said of both tracks, before it as long as of the return. */
  inStep(after: (from: string, to: string) => number, before: (to: string) => number): void {
    for (const { from, to, wire } of this.sends.values()) wire.wait(Math.max(0, after(from, to)));
    for (const { to, wire } of this.buses.values()) wire.wait(before(to));
  }

  silence(open: (id: string) => number, now: number): void {
    for (const { from, gate } of this.buses.values()) gate.rest(open(from), now);
  }

  /** Lets go of all that leads from a track or to it. */
  drop(id: string): void {
    for (const list of [this.sends, this.parts])
      for (const [key, send] of list) if (send.from === id || send.to === id) this.cut(list, key, send);
    for (const [key, bus] of this.buses) {
      if (bus.from !== id && bus.to !== id) continue;
      bus.wire.cut();
      this.buses.delete(key);
    }
  }

  /** A send from a source, unless it is there; another source takes the place of the one before. */
  private put(
    list: Map<string, Send>,
    key: string,
    from: string,
    to: string,
    source: AudioNode,
    goal: () => AudioNode,
  ): boolean {
    const known = list.get(key);
    if (known?.source === source) return false;
    if (known) this.cut(list, key, known);
    const node = gain(this.context, 0);
    let hangs = false;
    const dial = new SwitchedDial(
      new ParamDial([node.gain]),
      (level) => level > 0,
      (on) => {
        between(source, node)(on);
        hangs = on;
      },
      false,
      afterMs(this.context),
    );
    list.set(key, { from, to, source, node, dial, hangs: () => hangs, wire: new Wire(node, goal()) });
    return true;
  }

  private bus(from: string, to: string, strip: Strip, goal: AudioNode): AudioNode {
    const key = `${from}>${to}`;
    const known = this.buses.get(key);
    if (known) return known.follow;
    const [follow, heard, gate] = [gain(this.context, 1), gain(this.context, 1), gain(this.context, 1)];
    strip.fader?.volume.turnAlso(follow.gain);
    strip.fader?.mute.turnAlso(heard.gain);
    follow.connect(heard).connect(gate);
    this.buses.set(key, { from, to, follow, gate: new ParamDial([gate.gain]), wire: new Wire(gate, goal) });
    return follow;
  }

  private cut(list: Map<string, Send>, key: string, { source, node, wire, hangs }: Send): true {
    if (hangs()) source.disconnect(node);
    wire.cut();
    list.delete(key);
    return true;
  }
}
