const HEAD_BYTES = 44;
const FLOAT = 3;
const BYTES = 4;

/** Whether a file says at its start that it is a WAV file. */
async function isWave(file: File): Promise<boolean> {
  const head = new TextDecoder("latin1").decode(await file.slice(0, 12).arrayBuffer());
  return head.startsWith("RIFF") && head.endsWith("WAVE");
}

/** The file itself if it is a WAV file; otherwise, decoded by the browser and encoded as 32-bit float WAV. */
export async function toWave(file: File): Promise<File> {
  if (await isWave(file)) return file;
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
