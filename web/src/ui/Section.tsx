import { clsx } from "clsx";
import { ChevronRight } from "lucide-react";
import type { ReactNode } from "react";

interface Props {
  /** What it is about, in a word. */
  name: string;
  /** What is to be known of it while it is folded. */
  line: ReactNode;
  open: boolean;
  onTurn: () => void;
  children: ReactNode;
}

/** A part of a panel under a line that folds it; the line says what is in it. */
export function Section({ name, line, open, onTurn, children }: Props) {
  return (
    <section className="section" aria-label={name}>
      <button type="button" className="section-line" aria-expanded={open} onClick={onTurn}>
        <ChevronRight size={14} aria-hidden="true" className={clsx("shrink-0", open && "rotate-90")} />
        <b className="shrink-0">{name}</b>
        <span className="faint min-w-0 grow truncate text-right">{!open && line}</span>
      </button>
      {open && <div className="flex flex-col gap-2 px-3 pb-3">{children}</div>}
    </section>
  );
}
