/** Coarser in level and in time: so many bits, and so many samples a second, each held until the next. */
class Crush extends AudioWorkletProcessor {
  static get parameterDescriptors() {
    return [
      { name: "bits", defaultValue: 16, minValue: 1, maxValue: 16 },
      { name: "rate", defaultValue: 48000, minValue: 100, maxValue: 192000 },
    ];
  }

  constructor() {
    super();
    this.held = [0, 0];
    this.phase = 1;
  }

  /** Whether nothing comes in and nothing is held. */
  silent(input) {
    return this.held.every((value) => value === 0) && input.every((channel) => channel.every((sample) => sample === 0));
  }

  process([input], [output], { bits, rate }) {
    if (this.silent(input)) return true;
    const frames = output[0].length;
    let steps = 2 ** (bits[0] - 1);
    for (let i = 0; i < frames; i++) {
      if (bits.length > 1) steps = 2 ** (bits[i] - 1);
      this.phase += (rate.length > 1 ? rate[i] : rate[0]) / sampleRate;
      const take = this.phase >= 1;
      if (take) this.phase -= Math.floor(this.phase);
      for (let channel = 0; channel < output.length; channel++) {
        const sample = input[channel] ? input[channel][i] : 0;
        if (take) this.held[channel] = steps >= 32768 ? sample : Math.round(sample * steps) / steps;
        output[channel][i] = this.held[channel] || 0;
      }
    }
    return true;
  }
}

registerProcessor("crush", Crush);
