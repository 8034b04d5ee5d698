import type { RegionPart } from "../../api/types";
import { named, REGION_COMMANDS } from "../../commands";
import { type Command, does, hintOf, wordsOf } from "../../commands/command";
import { carriedTo } from "../../state/carried";
import { useChoice } from "../../state/choice";
import { useSong } from "../../state/song";
import { Deed } from "../../ui/Deed";

const MAIN = named(REGION_COMMANDS, "duplicate");
const PASTE = named(REGION_COMMANDS, "paste");
/** Of one region, and of several. */
const ONE = ["copy", "paste", "split", "join", "one-clip", "own", "mute", "lay-out"].map((id) =>
  named(REGION_COMMANDS, id),
);
const MANY = ["copy", "paste", "one-clip", "own", "each", "mute", "lay-out"].map((id) => named(REGION_COMMANDS, id));

/** What is done with the chosen regions. */
export function RegionDeeds({ regions }: { regions: RegionPart[] }) {
  return (
    <>
      <CommandDeed command={MAIN} main />
      <div className="grid grid-cols-2 gap-1">
        {(regions.length === 1 ? ONE : MANY).map((command) =>
          command === PASTE ? <PasteDeed key={command.id} /> : <CommandDeed key={command.id} command={command} />,
        )}
      </div>
    </>
  );
}

/** A command as a button of the panel; what only the playhead hinders is said when it is pressed. */
function CommandDeed({ command, main = false }: { command: Command; main?: boolean }) {
  const why = command.placed || command.id === "join" ? null : command.why();
  return (
    <Deed
      rank={main ? "main" : "quiet"}
      words={wordsOf(command)}
      icon={command.Icon && <command.Icon size={14} />}
      off={why !== null}
      title={why ?? command.what + hintOf(command)}
      pressed={command.on?.()}
      onDo={() => does(command)}
    />
  );
}

export function PasteDeed() {
  const clipboard = useChoice((state) => state.clipboard);
  const songId = useSong((state) => state.songId);
  const carried = carriedTo(songId);
  return (
    <Deed
      words={PASTE.words}
      icon={PASTE.Icon && <PASTE.Icon size={14} />}
      off={!carried && (!clipboard || !("regions" in clipboard))}
      title={clipboard || !carried ? "Paste at the playhead" : `Paste ${carried.words} of another song at the playhead`}
      onDo={() => does(PASTE)}
    />
  );
}
