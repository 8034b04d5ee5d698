/** The pitch of a beat, and of the first of a bar. */
const BEAT_HZ = 1150;
const BAR_HZ = 1720;
const CLICK_SECONDS = 0.03;

/** One click of the beat at a moment of context time: a short sine that dies away. */
export function click(context: BaseAudioContext, to: AudioNode, at: number, bar: boolean): void {
  const voice = new OscillatorNode(context, { frequency: bar ? BAR_HZ : BEAT_HZ });
  const level = new GainNode(context, { gain: 0 });
  const start = Math.max(at, context.currentTime);
  level.gain.setValueAtTime(bar ? 0.5 : 0.3, start);
  level.gain.setTargetAtTime(0, start + 0.002, CLICK_SECONDS / 5);
  voice.connect(level).connect(to);
  voice.start(start);
  voice.stop(start + CLICK_SECONDS);
  voice.onended = () => level.disconnect();
}
