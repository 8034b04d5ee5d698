import { edit } from "../state/edits";
import { useSong } from "../state/song";
import { setView } from "../state/view";
import { TextField } from "../ui/Fields";
import { HelpButton } from "./HelpBox";
import { FAR_SHEETS, PANELS } from "./panelNames";

/** On a phone: the name of the song in full, and the way to every sheet that has no button of its own below. */
export function AllPanel() {
  const name = useSong((state) => state.model.head.name);
  return (
    <section className="flex flex-col gap-3 p-3" aria-label="All sheets">
      <TextField
        label="Name of the song"
        value={name}
        onCommit={(next) => edit("rename_song", { name: next })}
        className="w-full text-lg font-bold"
      />
      <div className="grid grid-cols-4 gap-1 landscape:grid-cols-6">
        {FAR_SHEETS.map((sheet) => {
          const { name: words, Icon } = PANELS[sheet];
          return (
            <button key={sheet} type="button" className="sheet-button" onClick={() => setView({ sheet })}>
              <Icon size={17} aria-hidden="true" />
              {words}
            </button>
          );
        })}
        <HelpButton look="sheet-button" before={() => setView({ sheet: "at-hand" })} />
      </div>
    </section>
  );
}
