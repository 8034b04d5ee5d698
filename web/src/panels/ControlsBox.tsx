import { Trash2 } from "lucide-react";
import { useEffect, useState } from "react";
import { catalogue } from "../api/client";
import { type Controls, setControls, showControls, USUAL, useControls } from "../state/controls";
import { faultsSaid } from "../state/queue";
import { setSong, useSong } from "../state/song";
import { Box } from "../ui/Box";
import { IconButton } from "../ui/IconButton";

const CHANNEL: [string, string][] = [
  ["volume", "Volume"],
  ["pan", "Pan"],
];

/** Which controller of a MIDI file moves what, when the file is read. */
export function ControlsBox() {
  const { table, open } = useControls();
  const known = useSong((state) => state.catalogue);
  // In the list of songs none has been opened yet, and the names have to be asked for.
  useEffect(() => {
    if (open && !known) void faultsSaid(catalogue).then((found) => found && setSong({ catalogue: found }));
  }, [open, known]);
  if (!open) return null;
  const names = new Map(CHANNEL);
  for (const { role, parameters } of Object.values(known?.devices ?? {}))
    if (role === "instrument")
      for (const { id, name, automatable } of parameters) if (automatable && !names.has(id)) names.set(id, name);
  for (const [, id] of table) if (!names.has(id)) names.set(id, id);
  const change = (place: number, entry: Controls[number]) =>
    setControls(table.map((other, i) => (i === place ? entry : other)));
  return (
    <Box title="What MIDI controllers move" onClose={() => showControls(false)}>
      <p className="faint text-sm">
        When a MIDI file is read, its controllers become moves in the clips. Volume and pan are the channel's; the rest
        are the instrument's, where it has them. What moves nothing is left out and said.
      </p>
      <ul className="flex flex-col gap-1">
        {table.map(([number, parameter], i) => (
          <li key={number} className="flex items-center gap-2">
            <span className="w-28 text-sm">Controller {number}</span>
            <select
              className="select select-sm grow pointer-coarse:h-11"
              aria-label={`What controller ${number} moves`}
              value={parameter}
              onChange={(event) => change(i, [number, event.target.value])}
            >
              {[...names].map(([id, name]) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
            <IconButton
              label={`Take controller ${number} out`}
              onPress={() => setControls(table.filter((_, place) => place !== i))}
            >
              <Trash2 size={14} />
            </IconButton>
          </li>
        ))}
      </ul>
      <Another table={table} />
      <button type="button" className="btn btn-ghost btn-sm" onClick={() => setControls(USUAL)}>
        As usual again
      </button>
    </Box>
  );
}

/** Adds a controller by its number, 0 to 127. */
function Another({ table }: { table: Controls }) {
  const [text, setText] = useState("");
  const number = Number(text);
  const fits = text !== "" && Number.isInteger(number) && number >= 0 && number <= 127;
  const free = fits && !table.some(([known]) => known === number);
  const add = () => {
    setControls([...table, [number, "cutoff"]]);
    setText("");
  };
  return (
    <div className="flex items-center gap-2">
      <input
        className="input input-sm w-28 pointer-coarse:h-11"
        inputMode="numeric"
        aria-label="Number of a controller"
        placeholder="0 to 127"
        value={text}
        onChange={(event) => setText(event.target.value.trim())}
        onKeyDown={(event) => event.key === "Enter" && free && add()}
      />
      <button type="button" className="btn btn-sm pointer-coarse:h-11" disabled={!free} onClick={add}>
        Add this controller
      </button>
      {text !== "" && !free && (
        <span className="text-sm">{fits ? "It is there already." : "A number from 0 to 127."}</span>
      )}
    </div>
  );
}
