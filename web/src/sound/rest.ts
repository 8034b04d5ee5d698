/** How often it is listened whether anything is still to be heard; what is listened to goes back further. */
const LOOK_MS = 500;
const LOOKED_AT = 32_768;
/** What is softer is silence: -100 dB. */
const SILENCE = 1e-5;

/** Has a context rest once nothing is to be heard of it: one that runs takes a share of a core in silence too. */
export class Rest {
  private timer = 0;
  private readonly listener: AnalyserNode;
  private readonly samples = new Float32Array(LOOKED_AT);

  constructor(
    private readonly context: AudioContext,
    heard: AudioNode,
  ) {
    this.listener = new AnalyserNode(context, { fftSize: LOOKED_AT });
    heard.connect(this.listener);
  }

  /** From now on, once it was silent for so many seconds. */
  after(seconds: number): void {
    this.cancel();
    let silentSince = performance.now();
    this.timer = window.setInterval(() => {
      if (this.loudest() > SILENCE) silentSince = performance.now();
      if (performance.now() - silentSince < seconds * 1000) return;
      this.cancel();
      void this.context.suspend();
    }, LOOK_MS);
  }

  cancel(): void {
    clearInterval(this.timer);
  }

  private loudest(): number {
    this.listener.getFloatTimeDomainData(this.samples);
    let peak = 0;
    for (const sample of this.samples) peak = Math.max(peak, Math.abs(sample));
    return peak;
  }
}
