/**
 * A compressor: above the threshold the level grows by 1/ratio. Levels in decibels, times in seconds; both channels are turned
 * down alike. Over a soft knee the curve bends as a parabola (the textbook gain computer).
 */
const KNEE = 6;
const QUIETEST = 1e-6;

class Press extends AudioWorkletProcessor {
  static get parameterDescriptors() {
    return [
      { name: "threshold", defaultValue: 0, minValue: -60, maxValue: 0, automationRate: "k-rate" },
      { name: "ratio", defaultValue: 1, minValue: 1, maxValue: 50, automationRate: "k-rate" },
      { name: "attack", defaultValue: 0.01, minValue: 0.0001, maxValue: 2, automationRate: "k-rate" },
      { name: "release", defaultValue: 0.1, minValue: 0.001, maxValue: 5, automationRate: "k-rate" },
    ];
  }

  constructor() {
    super();
    /** By how many decibels it is turned down now. */
    this.down = 0;
  }

  process([input], [output], { threshold, ratio, attack, release }) {
    const frames = output[0].length;
    const slope = 1 - 1 / ratio[0];
    const fall = 1 - Math.exp(-1 / (attack[0] * sampleRate));
    const rise = 1 - Math.exp(-1 / (release[0] * sampleRate));
    for (let i = 0; i < frames; i++) {
      let peak = QUIETEST;
      for (const channel of input) peak = Math.max(peak, Math.abs(channel[i]));
      const over = 20 * Math.log10(peak) - threshold[0];
      const wish = slope * (over <= -KNEE / 2 ? 0 : over >= KNEE / 2 ? over : (over + KNEE / 2) ** 2 / (2 * KNEE));
      this.down += (wish - this.down) * (wish > this.down ? fall : rise);
      const factor = 10 ** (-this.down / 20);
      for (let channel = 0; channel < output.length; channel++)
        output[channel][i] = (input[channel] ? input[channel][i] : 0) * factor;
    }
    return true;
  }
}

registerProcessor("press", Press);
