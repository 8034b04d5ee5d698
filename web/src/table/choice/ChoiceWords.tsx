import { clsx } from "clsx";
import { type Command, does, hintOf, wordsOf } from "../../commands/command";
import { openMenu, type Subject } from "../../state/menu";
import { useTransport } from "../../state/transport";

/** What is done most with what is chosen, in words, and the way to all of it; what cannot be done says why. */
export function ChoiceWords({ list, subject }: { list: Command[]; subject: Subject }) {
  // The place of the playhead decides what some of them can do.
  useTransport((state) => (state.playing ? null : state.playhead));
  return (
    <>
      {list.map((command) => {
        const why = command.why();
        return (
          <button
            key={command.id}
            type="button"
            className={clsx("by-choice px-2", why && "faint")}
            aria-disabled={why !== null}
            title={why ?? command.what + hintOf(command)}
            onPointerDown={command.press}
            onClick={() => does(command)}
          >
            {wordsOf(command)}
          </button>
        );
      })}
      <button
        type="button"
        className="by-choice px-2 font-semibold"
        title="Everything that can be done with it"
        aria-haspopup="menu"
        onClick={(event) => {
          const { left, bottom } = event.currentTarget.getBoundingClientRect();
          openMenu(subject, left, bottom);
        }}
      >
        more
      </button>
    </>
  );
}
