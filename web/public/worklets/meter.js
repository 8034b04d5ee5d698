/** Peaks of many inputs, told about thirty times a second. */
const TOLD_SECONDS = 1 / 30;

class Meter extends AudioWorkletProcessor {
  constructor({ numberOfInputs }) {
    super();
    this.peaks = new Float32Array(numberOfInputs);
    this.next = 0;
  }

  process(inputs) {
    for (let i = 0; i < inputs.length; i++)
      for (const channel of inputs[i])
        for (const sample of channel) {
          const level = sample < 0 ? -sample : sample;
          if (level > this.peaks[i]) this.peaks[i] = level;
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
