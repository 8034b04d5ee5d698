/** What is told of a sound: peaks in dBFS and dBTP, loudness in LUFS; -Infinity for silence. */
export interface Measured {
  peak_db: number;
  true_peak_db: number;
  loudness: number;
}

/** Loudness is measured over blocks of this many seconds, one every tenth (ITU-R BS.1770-4). */
const BLOCK_SECONDS = 0.4;
const STEP_SECONDS = 0.1;
const ABSOLUTE_GATE = -70;
const RELATIVE_GATE = -10;
/** The constant that puts a 997 Hz sine at 0 dBFS in one channel at -3.01 LKFS (BS.1770-4). */
const OFFSET = -0.691;

const decibels = (amplitude: number): number => 20 * Math.log10(amplitude);

export function measure(channels: Float32Array[], rate: number): Measured {
  return {
    peak_db: decibels(Math.max(0, ...channels.map(peakOf))),
    true_peak_db: decibels(Math.max(0, ...channels.map((samples) => truePeakOf(samples, rate)))),
    loudness: loudnessOf(channels, rate),
  };
}

function peakOf(samples: Float32Array): number {
  let most = 0;
  for (let i = 0; i < samples.length; i++) most = Math.max(most, Math.abs(samples[i]));
  return most;
}

interface Biquad {
  b: [number, number, number];
  a: [number, number];
}

/**
 * The weighting of BS.1770-4 at any rate: a shelf that lifts the highs by 4 dB, and a high pass, both by the bilinear
 * transform from what the coefficients that are published for 48 kHz come from.
 */
function weighting(rate: number): Biquad[] {
  const shelf = (): Biquad => {
    const k = Math.tan((Math.PI * 1681.974450955533) / rate);
    const [high, q] = [10 ** (3.999843853973347 / 20), 0.7071752369554196];
    const middle = high ** 0.4996667741545416;
    const a0 = 1 + k / q + k * k;
    return {
      b: [(high + (middle * k) / q + k * k) / a0, (2 * (k * k - high)) / a0, (high - (middle * k) / q + k * k) / a0],
      a: [(2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0],
    };
  };
  const k = Math.tan((Math.PI * 38.13547087602444) / rate);
  const q = 0.5003270373238773;
  const a0 = 1 + k / q + k * k;
  return [shelf(), { b: [1, -2, 1], a: [(2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0] }];
}

function filtered(samples: Float32Array, { b, a }: Biquad): Float32Array {
  const out = new Float32Array(samples.length);
  let [x1, x2, y1, y2] = [0, 0, 0, 0];
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i];
    const y = b[0] * x + b[1] * x1 + b[2] * x2 - a[0] * y1 - a[1] * y2;
    [x2, x1, y2, y1] = [x1, x, y1, y];
    out[i] = y;
  }
  return out;
}

/** Integrated loudness of BS.1770-4, gated twice. */
function loudnessOf(channels: Float32Array[], rate: number): number {
  const weighted = channels.map((samples) => weighting(rate).reduce(filtered, samples));
  const [block, step] = [Math.round(BLOCK_SECONDS * rate), Math.round(STEP_SECONDS * rate)];
  const powers: number[] = [];
  for (let from = 0; from + block <= (weighted[0]?.length ?? 0); from += step) {
    let sum = 0;
    for (const samples of weighted) {
      let square = 0;
      for (let i = from; i < from + block; i++) square += samples[i] * samples[i];
      sum += square / block;
    }
    powers.push(sum);
  }
  const level = (power: number) => OFFSET + 10 * Math.log10(power);
  const mean = (list: number[]) => list.reduce((sum, power) => sum + power, 0) / list.length;
  const audible = powers.filter((power) => level(power) > ABSOLUTE_GATE);
  if (audible.length === 0) return Number.NEGATIVE_INFINITY;
  const gate = level(mean(audible)) + RELATIVE_GATE;
  return level(mean(audible.filter((power) => level(power) > gate)));
}

/** Taps of the filter between samples, on each side. */
const REACH = 16;

/** The highest between samples, four times as fine up to 48 kHz and twice above (BS.1770-4, annex 2). */
function truePeakOf(samples: Float32Array, rate: number): number {
  const times = rate > 50_000 ? 2 : 4;
  const phases = Array.from({ length: times - 1 }, (_, i) => between((i + 1) / times));
  let most = peakOf(samples);
  for (let i = 0; i < samples.length; i++) {
    // Nothing between two quiet samples comes higher than what is known, by more than the filter can lift it.
    if (Math.abs(samples[i]) < most / 3 && Math.abs(samples[i + 1] ?? 0) < most / 3) continue;
    for (const taps of phases) {
      let sum = 0;
      for (let j = 0; j < taps.length; j++) sum += taps[j] * (samples[i + j - REACH + 1] ?? 0);
      most = Math.max(most, Math.abs(sum));
    }
  }
  return most;
}

/** A windowed sinc at a share of the way from one sample to the next. */
function between(share: number): Float64Array {
  return Float64Array.from({ length: 2 * REACH }, (_, j) => {
    const x = j - REACH + 1 - share;
    const window = 0.5 + 0.5 * Math.cos((Math.PI * x) / (REACH + 0.5));
    return x === 0 ? 1 : (Math.sin(Math.PI * x) / (Math.PI * x)) * window;
  });
}
