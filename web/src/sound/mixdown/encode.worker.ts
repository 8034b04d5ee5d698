import { measure } from "./loudness";
import { type Bits, wav } from "./wav";

/** Sound to be measured and written. */
export interface EncodeJob {
  channels: Float32Array[];
  rate: number;
  bits: Bits;
}

const worker = self as unknown as {
  onmessage: (event: MessageEvent<EncodeJob>) => void;
  postMessage(answer: object, transfer?: Transferable[]): void;
};

worker.onmessage = ({ data: { channels, rate, bits } }) => {
  try {
    const file = wav(channels, rate, bits);
    worker.postMessage({ file, measured: measure(channels, rate), frames: channels[0].length }, [file]);
  } catch (error) {
    worker.postMessage({ fault: error instanceof Error ? error.message : String(error) });
  }
};
