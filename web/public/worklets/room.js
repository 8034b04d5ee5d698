/**
 * A room: eight delay lines that feed each other through a mirror matrix (identity less a quarter of all), which keeps the energy,
 * and lose 60 dB in `length` seconds: a line of d seconds is turned down by 10^(-3 d / length) at every round.
 */
const LINES = [1433, 1601, 1867, 2053, 2251, 2399, 2617, 2797];
const AT_RATE = 48000;
const LEVEL = 0.35;
/** Below this nothing rings. */
const FAINT = 1e-7;
/** So many blocks are as long as the longest line, at any rate. */
const BLOCKS = 100;

class Room extends AudioWorkletProcessor {
  static get parameterDescriptors() {
    return [{ name: "length", defaultValue: 2, minValue: 0.05, maxValue: 60, automationRate: "k-rate" }];
  }

  constructor() {
    super();
    const sizes = LINES.map((frames) => Math.round((frames * sampleRate) / AT_RATE));
    this.lines = sizes.map((size) => new Float32Array(size));
    this.places = new Int32Array(sizes.length);
    this.factors = new Float64Array(sizes.length);
    this.quiet = 0;
    this.rings = false;
    this.sums = new Float64Array(128);
    this.outs = sizes.map(() => new Float64Array(128));
  }

  process([input], [output], { length }) {
    const frames = output[0].length;
    if (this.still(input)) return true;
    this.read(frames, length[0]);
    this.write(frames, input[0], input[1] || input[0]);
    const [a, b, c, d, e, f, g, h] = this.outs;
    const [left, right] = [output[0], output[1] || output[0]];
    this.rings = this.outs.some((out) => Math.abs(out[0]) > FAINT || Math.abs(out[frames >> 1]) > FAINT);
    for (let i = 0; i < frames; i++) {
      left[i] = (a[i] - c[i] + e[i] - g[i]) * LEVEL;
      right[i] = (b[i] - d[i] + f[i] - h[i]) * LEVEL;
    }
    return true;
  }

  /** Whether nothing comes in, and nothing has gone round for as long as the longest line is. */
  still(input) {
    const silent = input.every((channel) => channel.every((sample) => sample === 0)) && !this.rings;
    this.quiet = silent ? this.quiet + 1 : 0;
    return this.quiet > BLOCKS;
  }

  /** What comes out of every line; all are longer than a block. */
  read(frames, length) {
    const { sums } = this;
    sums.fill(0);
    for (let k = 0; k < this.lines.length; k++) {
      const line = this.lines[k];
      const out = this.outs[k];
      let factor = this.factors[k];
      const step = (10 ** ((-3 * line.length) / (sampleRate * length)) - factor) / frames;
      let place = this.places[k];
      for (let i = 0; i < frames; i++) {
        factor += step;
        const value = line[place] * factor;
        if (++place === line.length) place = 0;
        out[i] = value;
        sums[i] += value;
      }
      this.factors[k] = factor;
    }
  }

  /** What goes back into every line. */
  write(frames, left, right) {
    const { sums } = this;
    for (let k = 0; k < this.lines.length; k++) {
      const line = this.lines[k];
      const out = this.outs[k];
      const dry = k % 2 === 0 ? left : right;
      let place = this.places[k];
      for (let i = 0; i < frames; i++) {
        line[place] = out[i] - sums[i] * 0.25 + (dry ? dry[i] : 0);
        if (++place === line.length) place = 0;
      }
      this.places[k] = place;
    }
  }
}

registerProcessor("room", Room);
