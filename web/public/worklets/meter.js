/** Peaks of many inputs, told about thirty times a second. */
const TOLD_SECONDS = 1 / 30;

class Meter extends AudioWorkletProcessor {
  constructor({ numberOfInputs }) {
    super();
    this.peaks = new Float32Array(numberOfInputs);
    this.next = 0;
  }

  process(inputs) {
    for (let i = 0; i < inputs.length; i++) {
      let peak = this.peaks[i];
      for (const channel of inputs[i]) {
        for (let k = 0; k < channel.length; k++) {
          const level = Math.abs(channel[k]);
          if (level > peak) peak = level;
        }
      }
      this.peaks[i] = peak;
    }
    if (currentTime >= this.next) {
      this.next = currentTime + TOLD_SECONDS;
      this.port.postMessage(this.peaks.slice());
      this.peaks.fill(0);
    }
    return true;
  }
}

registerProcessor("meter", Meter);
