const known = new WeakMap<AudioBuffer, AudioBuffer>();

/** A sound from its end to its start; made once. */
export function backwards(buffer: AudioBuffer): AudioBuffer {
  const made = known.get(buffer);
  if (made) return made;
  const { length, sampleRate, numberOfChannels } = buffer;
  const turned = new AudioBuffer({ length, sampleRate, numberOfChannels });
  for (let channel = 0; channel < numberOfChannels; channel++)
    turned.copyToChannel(buffer.getChannelData(channel).slice().reverse(), channel);
  known.set(buffer, turned);
  return turned;
}
