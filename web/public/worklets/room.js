/**
 * A room: eight delay lines that feed each other through a mirror matrix (identity less a quarter of all), which keeps the energy,
 * and lose 60 dB in `length` seconds: a line of d seconds is turned down by 10^(-3 d / length) at every round.
 */
const LINES = [1433, 1601, 1867, 2053, 2251, 2399, 2617, 2797];
const AT_RATE = 48000;
const LEVEL = 0.35;

class Room extends AudioWorkletProcessor {
  static get parameterDescriptors() {
    return [{ name: "length", defaultValue: 2, minValue: 0.05, maxValue: 60, automationRate: "k-rate" }];
  }

  constructor() {
    super();
    this.lines = LINES.map((frames) => new Float32Array(Math.round((frames * sampleRate) / AT_RATE)));
    this.places = LINES.map(() => 0);
    this.factors = LINES.map(() => 0);
  }

  process([input], [output], { length }) {
    const frames = output[0].length;
    const [left, right] = [output[0], output[1] || output[0]];
    const goals = this.lines.map((line) => 10 ** ((-3 * line.length) / (sampleRate * length[0])));
    const steps = goals.map((goal, k) => (goal - this.factors[k]) / frames);
    const out = new Float64Array(LINES.length);
    for (let i = 0; i < frames; i++) {
      let sum = 0;
      for (let k = 0; k < LINES.length; k++) {
        this.factors[k] += steps[k];
        out[k] = this.lines[k][this.places[k]] * this.factors[k];
        sum += out[k];
      }
      const dry = [input[0] ? input[0][i] : 0, input[1] ? input[1][i] : input[0] ? input[0][i] : 0];
      for (let k = 0; k < LINES.length; k++) {
        this.lines[k][this.places[k]] = out[k] - sum / 4 + dry[k % 2];
        this.places[k] = (this.places[k] + 1) % this.lines[k].length;
      }
      left[i] = (out[0] - out[2] + out[4] - out[6]) * LEVEL;
      right[i] = (out[1] - out[3] + out[5] - out[7]) * LEVEL;
    }
    return true;
  }
}

registerProcessor("room", Room);
