import type { Mapping } from "../api/types";
import { mappingsNow } from "../state/mappings";
import { eightNow } from "../state/sets";
import { holdsIt, standsAt } from "./hands";
import { bendBytes, controllerBytes, fineBytes, noteBytes } from "./midi/writer";

/** Faders with motors, and rings of lights, are told this often where what they turn has come to. */
const EVERY_MS = 50;
/** A smaller change is none. */
const NONE = 1 / 512;

/** Sends a message to a controller. */
export type Send = (device: string, bytes: number[]) => void;

const told = new Map<string, number>();

/** The message that puts a control where something stands; none for controls that only tell steps, or pressure. */
export function messagesFor(
  { control, kind, low, high }: Pick<Mapping, "control" | "kind" | "low" | "high">,
  stands: number,
): number[][] {
  if (kind === "twos" || kind === "sign" || kind === "offset") return [];
  const place = high === low ? 0 : Math.min(Math.max((stands - low) / (high - low), 0), 1);
  const [form, channel, number] = control.split("/");
  if (form === "cc") return [controllerBytes(Number(channel), Number(number), place)];
  if (form === "cc14") return fineBytes(Number(channel), Number(number), place);
  if (form === "bend") return [bendBytes(Number(channel), place)];
  return form === "note" ? [noteBytes(Number(channel), Number(number), place >= 0.5)] : [];
}

/** A controller that has come back is told everything again. */
export const tellAgain = (): void => told.clear();

/** Keeps controllers where the song has what they turn, but for what they themselves hold. Returns how to stop. */
export function feedBack(send: Send): () => void {
  told.clear();
  const timer = window.setInterval(() => {
    const { song, all } = mappingsNow();
    const eight = eightNow();
    for (const mapping of [...song, ...all]) tell(mapping, eight, send);
  }, EVERY_MS);
  return () => clearInterval(timer);
}

function tell(mapping: Mapping, eight: string[], send: Send): void {
  const { device, control, target } = mapping;
  const address = target.address ?? eight[(target.slot ?? 0) - 1];
  if (!address || holdsIt(address, device)) return;
  const stands = standsAt(address);
  const key = `${device} ${control} ${address}`;
  if (Math.abs((told.get(key) ?? Number.POSITIVE_INFINITY) - stands) < NONE) return;
  told.set(key, stands);
  for (const bytes of messagesFor(mapping, stands)) send(device, bytes);
}
