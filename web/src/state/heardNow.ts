import type { Normalised } from "../api/types";
import { heightAt } from "../geometry/corners";
import { song } from "./song";
import { transportNow } from "./transport";

/** What is heard of a parameter at the playhead, as the drawn curve has it; null where it is not known. */
export function heardNow(address: string): Normalised | null {
  const { preview, heard } = song();
  const corners = preview?.heard[address] ?? heard[address];
  return corners ? heightAt(corners, transportNow().playhead) : null;
}
