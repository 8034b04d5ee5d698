import type { EnvelopePart } from "../../api/types";
import { does } from "../../commands/command";
import { leavingOf, SHAPE_COMMANDS } from "../../commands/points";
import { ShapeIcon } from "../../ui/shapes";

/** Shapes for the segments that leave the chosen points, at one press. */
export function ShapeDeeds({ envelope, chosen }: { envelope: EnvelopePart; chosen: number[] }) {
  if (leavingOf(envelope, chosen).length === 0) return null;
  return SHAPE_COMMANDS.map((command) => {
    const on = command.on?.() ?? false;
    const name = command.words.toLowerCase();
    return (
      <button
        key={command.id}
        type="button"
        className={`by-choice ${on ? "hue bg-base-300" : ""}`}
        aria-label={name}
        aria-pressed={on}
        title={name}
        onClick={() => does(command)}
      >
        <ShapeIcon name={command.shape} />
      </button>
    );
  });
}
