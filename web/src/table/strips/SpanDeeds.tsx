import { POINT_COMMANDS } from "../../commands";
import { does, hintOf } from "../../commands/command";
import { pressKeep } from "../../gestures/keeping";

const COMMON = POINT_COMMANDS.filter(({ common }) => common);

/** What is done with the chosen span most. */
export function SpanDeeds() {
  return COMMON.map((command) => (
    <button
      key={command.id}
      type="button"
      className="by-choice px-2"
      title={command.what + hintOf(command)}
      onPointerDown={command.id === "keep" ? pressKeep : undefined}
      onClick={() => does(command)}
    >
      {command.words}
    </button>
  ));
}
