import { ChevronRight } from "lucide-react";
import type { ReactNode } from "react";
import { setView, useView, viewNow } from "../state/view";

/** A part of a panel that folds away, and remembers whether it was open. */
export function Fold({ id, words, children }: { id: string; words: string; children: ReactNode }) {
  const open = useView((state) => state.folds[id] ?? false);
  return (
    <section className="border-t border-base-300">
      <button
        type="button"
        className="fold"
        aria-expanded={open}
        onClick={() => setView({ folds: { ...viewNow().folds, [id]: !open } })}
      >
        <ChevronRight size={14} aria-hidden="true" className={open ? "rotate-90" : ""} /> {words}
      </button>
      {open && <div className="flex flex-col gap-2 pb-3">{children}</div>}
    </section>
  );
}
