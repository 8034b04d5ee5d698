const DELAY_FRAMES = 512;

/** How much longer a loop of the sound graph takes than the delay in it, in seconds; browsers differ by one block. */
let extra = 0;
let known = 0;

/** Measures it once for a rate: when an impulse comes again that goes round a loop. */
export async function measureLoops(rate: number): Promise<void> {
  if (known === rate) return;
  const context = new OfflineAudioContext(1, 4 * DELAY_FRAMES, rate);
  const line = new DelayNode(context, { delayTime: DELAY_FRAMES / rate, maxDelayTime: 1 });
  const buffer = new AudioBuffer({ length: 1, sampleRate: rate });
  buffer.getChannelData(0)[0] = 1;
  const source = new AudioBufferSourceNode(context, { buffer });
  source.connect(line);
  line.connect(new GainNode(context, { gain: 0.5 })).connect(line);
  line.connect(context.destination);
  source.start();
  const samples = (await context.startRendering()).getChannelData(0);
  const again = samples.findIndex((sample, i) => i > DELAY_FRAMES + 1 && Math.abs(sample) > 0.2);
  extra = again < 0 ? 0 : (again - 2 * DELAY_FRAMES) / rate;
  known = rate;
}

export const loopExtra = (): number => extra;
