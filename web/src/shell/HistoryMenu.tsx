import { clsx } from "clsx";
import { History } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Button, Dialog, DialogTrigger, Popover } from "react-aria-components";
import type { EditHistory } from "../api/types";
import { goTo } from "../state/edits";
import { api } from "../state/questions";
import { faultsSaid } from "../state/queue";
import { useSong } from "../state/song";

const ENTRY =
  "w-full cursor-pointer rounded-field px-2 py-1 text-left text-xs hover:bg-base-300 pointer-coarse:min-h-11";

/** What was done, newest first; a press goes back, or on again, to right after it. */
export function HistoryList() {
  const revision = useSong((state) => state.revision);
  const [history, setHistory] = useState<EditHistory | null>(null);
  const here = useRef<HTMLButtonElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again when the song changes
  useEffect(() => {
    let over = false;
    void faultsSaid(() => api().history()).then((found) => {
      if (found && !over) setHistory(found);
    });
    return () => {
      over = true;
    };
  }, [revision]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once the list is there
  useEffect(() => {
    here.current?.scrollIntoView({ block: "nearest" });
  }, [history]);
  if (!history) return <p className="faint text-xs">Looking …</p>;
  const { done, entries } = history;
  const first = (entries[0]?.place ?? done + 1) - 1;
  const list = [...entries].reverse();
  const time = (at: string) => new Date(at).toLocaleString(undefined, { dateStyle: "short", timeStyle: "short" });
  return (
    <ol className="flex flex-col" aria-label="What was done">
      {list.map(({ place, words, at }) => (
        <li key={place}>
          <button
            type="button"
            ref={place === done ? here : undefined}
            className={clsx(
              ENTRY,
              "flex gap-2",
              place === done && "bg-base-200 font-semibold",
              place > done && "faint",
            )}
            aria-current={place === done ? "step" : undefined}
            onClick={() => place !== done && void goTo(place)}
          >
            <span className="grow">{words}</span>
            <span className="faint shrink-0">{place > done ? "undone" : time(at)}</span>
          </button>
        </li>
      ))}
      <li>
        <button
          type="button"
          ref={first === done ? here : undefined}
          className={clsx(ENTRY, first === done && "bg-base-200 font-semibold")}
          aria-current={first === done ? "step" : undefined}
          onClick={() => first !== done && void goTo(first)}
        >
          {first === 0 ? "the song as it came" : `${first} steps before these`}
        </button>
      </li>
    </ol>
  );
}

/** The same behind a button of the top bar. */
export function HistoryMenu() {
  return (
    <DialogTrigger>
      <Button
        className="btn btn-ghost btn-sm btn-square max-[56.25em]:hidden"
        aria-label="What was done"
        aria-haspopup="dialog"
      >
        <History size={15} />
      </Button>
      <Popover
        placement="bottom right"
        className="max-h-[70dvh] w-80 overflow-auto rounded-box border border-base-300 bg-base-100 p-2 shadow"
      >
        <Dialog aria-label="What was done" className="outline-none">
          <HistoryList />
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
