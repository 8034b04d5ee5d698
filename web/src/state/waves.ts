const HEAD_BYTES = 44;
const FLOAT = 3;
const BYTES = 4;

/** Whether a file says at its start that it is a WAV file. */
async function isWave(file: File): Promise<boolean> {
  const head = new TextDecoder("latin1").decode(await file.slice(0, 12).arrayBuffer());
  return head.startsWith("RIFF") && head.endsWith("WAVE");
}

/** The longest sound that is decoded, in seconds, and the largest file. */
const LONGEST_SECONDS = 20 * 60;
const LARGEST_BYTES = 200 * 1024 * 1024;

/** Raised for a sound that is too long; its message says so. */
export class TooLong extends Error {}

/** How long a sound is, as its head or its frames say, without decoding it; null where they do not tell. */
async function secondsOf(file: File): Promise<number | null> {
  const { parseBlob } = await import("music-metadata");
  // What it is by its bytes, not by what it is called.
  const told = await parseBlob(file.slice(0, file.size, ""), { duration: true, skipCovers: true }).catch(() => null);
  return told?.format.duration ?? null;
}

/** Before a sound is decoded, which takes ten times its room: whether it is short enough for that. */
async function checkLength(file: File): Promise<void> {
  if (file.size > LARGEST_BYTES) throw new TooLong("The file is larger than 200 MB.");
  const seconds = await secondsOf(file);
  if (seconds !== null && seconds > LONGEST_SECONDS)
    throw new TooLong(`The sound lasts ${Math.round(seconds / 60)} minutes; at most 20 are taken.`);
}

/** The file itself if it is a WAV file; otherwise, decoded by the browser and encoded as 32-bit float WAV. */
export async function toWave(file: File): Promise<File> {
  if (await isWave(file)) return file;
  await checkLength(file);
  const context = new OfflineAudioContext(1, 1, 44100);
  const buffer = await context.decodeAudioData(await file.arrayBuffer());
  return new File([waveOf(buffer)], file.name.replace(/\.[^.]*$/, ".wav"), { type: "audio/wav" });
}

function waveOf(buffer: AudioBuffer): ArrayBuffer {
  const channels = Math.min(buffer.numberOfChannels, 2);
  const size = buffer.length * channels * BYTES;
  const bytes = new ArrayBuffer(HEAD_BYTES + size);
  const view = new DataView(bytes);
  const text = (at: number, word: string) => {
    for (let i = 0; i < word.length; i++) view.setUint8(at + i, word.charCodeAt(i));
  };
  text(0, "RIFF");
  view.setUint32(4, HEAD_BYTES - 8 + size, true);
  text(8, "WAVEfmt ");
  view.setUint32(16, 16, true);
  view.setUint16(20, FLOAT, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, buffer.sampleRate, true);
  view.setUint32(28, buffer.sampleRate * channels * BYTES, true);
  view.setUint16(32, channels * BYTES, true);
  view.setUint16(34, BYTES * 8, true);
  text(36, "data");
  view.setUint32(40, size, true);
  const samples = new Float32Array(bytes, HEAD_BYTES);
  for (let channel = 0; channel < channels; channel++) {
    const side = buffer.getChannelData(channel);
    for (let i = 0; i < side.length; i++) samples[i * channels + channel] = side[i];
  }
  return bytes;
}
