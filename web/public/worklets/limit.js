/**
 * A limiter that looks ahead: no sample leaves it above the ceiling. The gain that the loudest of the next samples needs is held
 * over the time it looks ahead, lets go slowly, and is smoothed by a mean over that same time, so it has come down when the peak
 * leaves. Switched off it only delays, so that switching moves nothing in time.
 */
const AHEAD_SECONDS = 0.002;
const RELEASE_SECONDS = 0.12;
const SWITCH_SECONDS = 0.01;
/** A gain above this is none. */
const LEVEL = 1 - 1e-6;

/** The greatest sample of a block. */
function loudest(input) {
  let peak = 0;
  for (const channel of input)
    for (let i = 0; i < channel.length; i++) {
      const level = channel[i] < 0 ? -channel[i] : channel[i];
      if (level > peak) peak = level;
    }
  return peak;
}

class Limit extends AudioWorkletProcessor {
  static get parameterDescriptors() {
    return [
      { name: "ceiling", defaultValue: -1, minValue: -24, maxValue: 0, automationRate: "k-rate" },
      { name: "on", defaultValue: 1, minValue: 0, maxValue: 1, automationRate: "k-rate" },
    ];
  }

  constructor() {
    super();
    this.size = Math.round(AHEAD_SECONDS * sampleRate);
    this.late = [0, 1].map(() => new Float32Array(this.size));
    // One more than is kept back, so that the sample that leaves is still among them.
    this.wanted = new Float32Array(this.size + 1).fill(1);
    this.now = 0;
    this.leastAt = 0;
    this.known = 1;
    this.gains = new Float32Array(this.size).fill(1);
    this.sum = this.size;
    this.at = 0;
    this.gain = 1;
    this.on = 1;
    /** For how many samples nothing had to be turned down. */
    this.level = this.wanted.length;
  }

  process([input], [output], { ceiling, on }) {
    const top = 10 ** (ceiling[0] / 20);
    if (this.level >= this.wanted.length && loudest(input) <= top) return this.passOn(input, output, on[0]);
    const rise = 1 - Math.exp(-1 / (RELEASE_SECONDS * sampleRate));
    const turn = 1 - Math.exp(-1 / (SWITCH_SECONDS * sampleRate));
    for (let i = 0; i < output[0].length; i++) {
      const peak = Math.max(Math.abs(input[0]?.[i] ?? 0), Math.abs(input[1]?.[i] ?? input[0]?.[i] ?? 0));
      const least = this.least(peak > top ? top / peak : 1);
      this.gain = least < this.gain ? least : this.gain + (least - this.gain) * rise;
      if (this.gain > LEVEL) this.gain = 1;
      this.level = this.gain === 1 ? this.level + 1 : 0;
      this.sum += this.gain - this.gains[this.at];
      this.gains[this.at] = this.gain;
      this.on += (on[0] - this.on) * turn;
      const gain = 1 + (Math.min(this.sum / this.size, 1) - 1) * this.on;
      for (let side = 0; side < output.length; side++) {
        const before = this.late[side][this.at];
        this.late[side][this.at] = input[side]?.[i] ?? input[0]?.[i] ?? 0;
        output[side][i] = before * gain;
      }
      this.at = (this.at + 1) % this.size;
      this.now = (this.now + 1) % this.wanted.length;
    }
    return true;
  }

  /** Nothing is to be turned down, and nothing was lately: what comes in goes out, later. */
  passOn(input, output, on) {
    this.sum = this.size;
    this.on = on;
    for (let i = 0; i < output[0].length; i++) {
      for (let side = 0; side < output.length; side++) {
        const late = this.late[side];
        output[side][i] = late[this.at];
        late[this.at] = (input[side] || input[0])?.[i] ?? 0;
      }
      if (++this.at === this.size) this.at = 0;
    }
    return true;
  }

  /** The least of the gains wanted lately; looked for again only when the least one leaves. */
  least(wanted) {
    this.wanted[this.now] = wanted;
    if (wanted <= this.known) this.leastAt = this.now;
    else if (this.leastAt === this.now)
      for (let i = 0; i < this.wanted.length; i++) if (this.wanted[i] <= this.wanted[this.leastAt]) this.leastAt = i;
    this.known = this.wanted[this.leastAt];
    return this.known;
  }
}

registerProcessor("limit", Limit);
