import type { SoundEvent, Stretch } from "../api/types";
import type { Voice } from "./parts";
import { type Lap, lostEvents, type Step } from "./planner";
import type { Rack } from "./rack";
import { eventKey } from "./stretches";

/** A voice is forgotten so long after its end. */
const AFTERMATH_SECONDS = 0.5;

/** Where what is played is found. */
export interface Library {
  soundOf(id: string): AudioBuffer | undefined;
  /** A pass of a loop whose pitch is kept, worked out already. */
  stretchedOf(event: SoundEvent): AudioBuffer | undefined;
}

/** Has the sound graph do what the planner says, whatever clock it goes by; knows which voices sound. */
export class Performer {
  private voices = new Map<string, { voice: Voice; until: number }>();

  constructor(
    private readonly context: BaseAudioContext,
    private readonly rack: Rack,
    private readonly library: Library,
  ) {}

  /** @param early so much sooner dials jump than their moment */
  perform(steps: Step[], lap: Lap, early = 0): void {
    for (const step of steps) {
      if (step.kind === "play") this.play(step.event, lap, step.from);
      else if (step.kind === "jump")
        this.rack.planned(step.address)?.replan(step.seconds + lap.lead - early, step.value);
      else this.rack.planned(step.address)?.follow(step.ramps, step.from, step.to, lap.lead);
    }
  }

  /** A lap begins: what runs by itself is where the song is, and dials are where they belong. */
  begin(steps: Step[], lap: Lap, early = 0): void {
    this.perform(
      steps.filter(({ kind }) => kind === "jump"),
      lap,
      early,
    );
    this.rack.begin(lap.from, lap.from + lap.lead);
    this.perform(
      steps.filter(({ kind }) => kind !== "jump"),
      lap,
    );
  }

  /** Stops every voice at a moment. */
  hush(at: number): void {
    for (const { voice } of this.voices.values()) voice.stop(at);
    this.voices.clear();
  }

  /** Breaks off voices whose event is gone. */
  renewed(stretch: Stretch, now: number): void {
    for (const key of lostEvents(this.voices.keys(), stretch)) {
      this.voices.get(key)?.voice.stop(now);
      this.voices.delete(key);
    }
  }

  forgetPast(now: number): void {
    const past = now - AFTERMATH_SECONDS;
    for (const [key, { until }] of this.voices) if (until < past) this.voices.delete(key);
  }

  private play(event: SoundEvent, lap: Lap, from: number): void {
    const until = Math.min(event.end_seconds, lap.to) + lap.lead;
    const pass = event.stretched ? this.library.stretchedOf(event) : undefined;
    const voice = this.rack.instrument(event.track_id)?.play?.({
      at: Math.max(from + lap.lead, this.context.currentTime),
      until,
      late: from - event.start_seconds,
      songSeconds: from,
      pitch: event.pitch ?? 60,
      velocity: event.velocity ?? 100,
      ...(pass ? { buffer: pass, into: 0, rate: 1 } : this.soundAsItIs(event)),
      through: this.rack.entry(event.track_id, event.clip_id),
      lead: lap.lead,
    });
    if (voice) this.voices.set(eventKey(event), { voice, until });
  }

  private soundAsItIs({ sound, into_seconds = 0, rate = 1, rates, backwards }: SoundEvent) {
    return { buffer: sound ? this.library.soundOf(sound) : undefined, into: into_seconds, rate, rates, backwards };
  }
}
