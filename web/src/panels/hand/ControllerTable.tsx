import { useState } from "react";
import { Refused } from "../../api/client";
import type { ControllerRow, HandOver } from "../../api/types";
import { keepChoices } from "../../gestures/handOver";
import { choose, useHandOver } from "../../state/handOver";
import { Box } from "../../ui/Box";

type Row = HandOver["controllers"][number];

/** By which controller each parameter goes out; kept with the song. Two that clash are told where they stand. */
export function ControllerTable({ onClose }: { onClose: () => void }) {
  const { known, choices } = useHandOver();
  const [fault, setFault] = useState<{ row: number; words: string } | null>(null);
  const rows = known?.controllers ?? [];
  const change = async (place: number, next: Partial<Row>) => {
    const list: ControllerRow[] = rows.map(({ address, number, bits }, i) => ({
      address,
      number,
      bits,
      ...(i === place ? next : {}),
    }));
    try {
      await keepChoices({ ...choices, controllers: list });
      choose({ controllers: list });
      setFault(null);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      const [{ path, message }] = error.faults;
      setFault({ row: Number(/\/controllers\/(\d+)/.exec(path)?.[1] ?? place), words: message });
    }
  };
  return (
    <Box title="Controllers" onClose={onClose}>
      <p className="faint text-sm">
        Each track is a part of the file. On one track a controller moves one parameter; 0 to 31 can have fourteen bits.
      </p>
      <ul className="flex flex-col gap-1">
        {rows.map((row, i) => (
          <li key={row.address} className="flex flex-wrap items-center gap-2">
            <span className="min-w-40 grow text-sm">{row.name}</span>
            <NumberOf
              row={row}
              onNumber={(number) => void change(i, number === "bend" ? { number, bits: 14 } : { number })}
            />
            <select
              className="select select-sm w-24 pointer-coarse:h-11"
              aria-label={`Bits of ${row.name}`}
              value={row.bits}
              onChange={(event) => void change(i, { bits: Number(event.target.value) as 7 | 14 })}
            >
              <option value={7}>7 bits</option>
              <option value={14}>14 bits</option>
            </select>
            {fault?.row === i && (
              <span className="w-full text-error text-xs" role="alert">
                {fault.words}
              </span>
            )}
          </li>
        ))}
      </ul>
    </Box>
  );
}

/** The number of a controller, 0 to 119, or "bend". */
function NumberOf({ row, onNumber }: { row: Row; onNumber: (number: number | "bend") => void }) {
  const [text, setText] = useState<string | null>(null);
  const commit = () => {
    const typed = (text ?? "").trim();
    setText(null);
    if (typed === "bend") onNumber("bend");
    else if (typed !== "" && Number.isInteger(Number(typed))) onNumber(Number(typed));
  };
  return (
    <input
      className="input input-sm w-20 pointer-coarse:h-11"
      aria-label={`Controller of ${row.name}`}
      title="0 to 119, or bend"
      value={text ?? String(row.number)}
      onChange={(event) => setText(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => event.key === "Enter" && commit()}
    />
  );
}
