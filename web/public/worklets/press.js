/**
 * A compressor: above the threshold the level grows by 1/ratio. Levels in decibels, times in seconds; both channels are turned
 * down alike. Over a soft knee the curve bends as a parabola (the textbook gain computer).
 */
const KNEE = 6;
/** The level is taken over so many samples at a time. */
const STEP = 4;
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
    this.factor = 1;
  }

  process([input], [output], { threshold, ratio, attack, release }) {
    if (input.length === 0 && this.down < 1e-6) return true;
    const frames = output[0].length;
    const slope = 1 - 1 / ratio[0];
    const fall = 1 - Math.exp(-STEP / (attack[0] * sampleRate));
    const rise = 1 - Math.exp(-STEP / (release[0] * sampleRate));
    for (let from = 0; from < frames; from += STEP) {
      let peak = QUIETEST;
      for (const channel of input)
        for (let i = from; i < from + STEP; i++) {
          const level = channel[i] < 0 ? -channel[i] : channel[i];
          if (level > peak) peak = level;
        }
      const over = 20 * Math.log10(peak) - threshold[0];
      const wish = slope * (over <= -KNEE / 2 ? 0 : over >= KNEE / 2 ? over : (over + KNEE / 2) ** 2 / (2 * KNEE));
      this.down += (wish - this.down) * (wish > this.down ? fall : rise);
      const factor = 10 ** (-this.down / 20);
      const pace = (factor - this.factor) / STEP;
      for (let i = from; i < from + STEP; i++) {
        this.factor += pace;
        for (let side = 0; side < output.length; side++) output[side][i] = (input[side] ? input[side][i] : 0) * this.factor;
      }
    }
    return true;
  }
}

registerProcessor("press", Press);
