import type { CSSProperties } from "react";

const HUES = ["madder", "indigo", "weld", "moss", "walnut", "lichen"];

/** A natural-dye hue for a parameter: always the same one for the same id. */
export function parameterHue(address: string): string {
  let sum = 0;
  for (const letter of address.split("/").slice(1).join("/")) sum = (sum * 31 + letter.charCodeAt(0)) >>> 0;
  return HUES[sum % HUES.length];
}

export const hueStyle = (hue: string): CSSProperties => ({ "--hue": `var(--${hue})` }) as CSSProperties;
