import type { EncodeJob } from "./encode.worker";
import type { Measured } from "./loudness";

export interface Encoded {
  file: ArrayBuffer;
  measured: Measured;
  frames: number;
}

/** Measures sound and writes it as a WAV file, beside the page. */
export function encode(job: EncodeJob): Promise<Encoded> {
  const worker = new Worker(new URL("./encode.worker.ts", import.meta.url), { type: "module" });
  return new Promise<Encoded>((done, fail) => {
    worker.onmessage = ({ data }) => (data.fault ? fail(new Error(data.fault)) : done(data));
    worker.onerror = () => fail(new Error("The browser runs no worker."));
    worker.postMessage(
      job,
      job.channels.map(({ buffer }) => buffer),
    );
  }).finally(() => worker.terminate());
}
