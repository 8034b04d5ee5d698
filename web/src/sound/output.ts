import { create } from "zustand";

/** How soon after it is asked for sound is to be heard: the sooner, the more easily it breaks off. */
export const LATENCIES = { interactive: "as soon as possible", balanced: "between", playback: "safe" } as const;
export type Latency = keyof typeof LATENCIES;

/** Where sound goes and how soon, on this device; kept in the browser, not with a song. */
interface Output {
  latency: Latency;
  /** The id of an output of the browser; empty for the one the system uses. */
  device: string;
  /** Outputs to choose from; none where the browser does not tell. */
  devices: { id: string; name: string }[];
}

const KEPT = "kind-satchel-output";

function kept(): Pick<Output, "latency" | "device"> {
  const { latency, device } = JSON.parse(localStorage.getItem(KEPT) ?? "{}");
  return { latency: latency in LATENCIES ? latency : "interactive", device: typeof device === "string" ? device : "" };
}

export const useOutput = create<Output>(() => ({ ...kept(), devices: [] }));
export const outputNow = useOutput.getState;

export function setOutput(change: Partial<Pick<Output, "latency" | "device">>): void {
  useOutput.setState(change);
  const { latency, device } = outputNow();
  localStorage.setItem(KEPT, JSON.stringify({ latency, device }));
}

/** Whether sound can be led to another output than the system's. */
export const canChooseDevice = (): boolean => "setSinkId" in AudioContext.prototype;

/** Asks the browser what outputs there are; it tells names only to pages that may use a microphone. */
export async function readDevices(): Promise<void> {
  if (!canChooseDevice() || !navigator.mediaDevices) return;
  const all = await navigator.mediaDevices.enumerateDevices().catch(() => []);
  const outputs = all.filter(({ kind, deviceId }) => kind === "audiooutput" && deviceId !== "");
  const devices = outputs.map(({ deviceId, label }, i) => ({ id: deviceId, name: label || `Output ${i + 1}` }));
  useOutput.setState({ devices });
}

/** Leads a context to the chosen output; one that is gone leaves it where the system sends it. */
export async function leadOut(context: AudioContext): Promise<void> {
  const { device } = outputNow();
  const to = context as AudioContext & { setSinkId?(id: string): Promise<void>; sinkId?: string };
  if (to.setSinkId && (to.sinkId ?? "") !== device) await to.setSinkId(device).catch(() => undefined);
}
