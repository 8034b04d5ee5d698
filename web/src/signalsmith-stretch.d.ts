declare module "signalsmith-stretch" {
  export type StretchNode = AudioWorkletNode & {
    schedule(what: { active?: boolean; semitones?: number; tonalityHz?: number }): Promise<unknown>;
    latency(): Promise<number>;
  };
  /** Makes the package's node; `moduleUrl` is where its processor is loaded from. */
  const make: { (context: BaseAudioContext): Promise<StretchNode>; moduleUrl: string };
  export default make;
}
declare module "signalsmith-stretch?url" {
  const url: string;
  export default url;
}
