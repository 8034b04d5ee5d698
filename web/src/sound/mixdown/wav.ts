export type Bits = 16 | 24 | 32;

/** A small generator of numbers, the same every time, so that a file is the same every time. */
function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) | 0;
    return (state >>> 0) / 4294967296;
  };
}

/**
 * A WAV file: whole numbers of 16 or 24 bits, with triangular dither of one step, or floats of 32. Beyond full scale
 * whole numbers are cut off.
 */
export function wav(channels: Float32Array[], rate: number, bits: Bits): ArrayBuffer {
  const [count, frames, bytes] = [channels.length, channels[0].length, bits / 8];
  const float = bits === 32;
  const head = float ? 58 : 44;
  const data = frames * count * bytes;
  const view = new DataView(new ArrayBuffer(head + data + (data % 2)));
  const text = (at: number, words: string) => {
    for (let i = 0; i < words.length; i++) view.setUint8(at + i, words.charCodeAt(i));
  };
  text(0, "RIFF");
  view.setUint32(4, view.byteLength - 8, true);
  text(8, "WAVEfmt ");
  view.setUint32(16, float ? 18 : 16, true);
  view.setUint16(20, float ? 3 : 1, true);
  view.setUint16(22, count, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * count * bytes, true);
  view.setUint16(32, count * bytes, true);
  view.setUint16(34, bits, true);
  if (float) {
    text(38, "fact");
    view.setUint32(42, 4, true);
    view.setUint32(46, frames, true);
  }
  text(head - 8, "data");
  view.setUint32(head - 4, data, true);
  if (float) floats(view, head, channels);
  else whole(view, head, channels, bits);
  return view.buffer as ArrayBuffer;
}

function floats(view: DataView, head: number, channels: Float32Array[]): void {
  let at = head;
  for (let i = 0; i < channels[0].length; i++)
    for (const samples of channels) {
      view.setFloat32(at, samples[i], true);
      at += 4;
    }
}

function whole(view: DataView, head: number, channels: Float32Array[], bits: Bits): void {
  const most = 2 ** (bits - 1);
  const random = numbers(1);
  let at = head;
  for (let i = 0; i < channels[0].length; i++)
    for (const samples of channels) {
      const dithered = Math.round(samples[i] * most + random() - random());
      const value = Math.max(-most, Math.min(most - 1, dithered));
      view.setInt16(at, bits === 16 ? value : value & 0xffff, true);
      if (bits === 24) {
        view.setUint16(at, value & 0xffff, true);
        view.setInt8(at + 2, value >> 16);
      }
      at += bits / 8;
    }
}
