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
    this.held = [];
    this.phase = 1;
  }

  process([input], [output], { bits, rate }) {
    const frames = output[0].length;
    for (let i = 0; i < frames; i++) {
      const steps = 2 ** ((bits.length > 1 ? bits[i] : bits[0]) - 1);
      this.phase += (rate.length > 1 ? rate[i] : rate[0]) / sampleRate;
      const take = this.phase >= 1;
      if (take) this.phase %= 1;
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
