import { pressKeep } from "../../gestures/keeping";
import { copyStretch, cutStretch, duplicateStretch, fade } from "../../state/clipboard";
import { showKeeping } from "../../state/satchel";

const DEEDS: [words: string, title: string, act: () => unknown][] = [
  ["Copy", "Copy the span (Ctrl C)", copyStretch],
  ["Cut", "Cut the span out (Ctrl X)", cutStretch],
  ["Again", "Once more, right after itself (Ctrl D)", duplicateStretch],
  ["Keep", "Keep it in the satchel, to drop it on anything; or drag it there", showKeeping],
  ["Fade in", "From silence up to the level after the span", () => fade("in")],
  ["Fade out", "From the level before the span to silence", () => fade("out")],
];

/** What is done with the chosen span most. */
export function SpanDeeds() {
  return DEEDS.map(([words, title, act]) => (
    <button
      key={words}
      type="button"
      className="by-choice px-2"
      title={title}
      onPointerDown={act === showKeeping ? pressKeep : undefined}
      onClick={() => void act()}
    >
      {words}
    </button>
  ));
}
