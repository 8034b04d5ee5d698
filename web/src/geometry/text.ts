import type { Px } from "../api/types";

const USUAL_PX = 16;

/** How large the browser's text is, times the usual: what holds words grows with it. */
const TEXT = Number.parseFloat(getComputedStyle(document.documentElement).fontSize) / USUAL_PX || 1;

/** What is so many pixels where text is of the usual size. */
export const scaled = (px: Px): Px => Math.round(px * TEXT);
