import { clsx } from "clsx";
import type { ReactNode } from "react";

/** What matters most in a panel, what is done besides, and what takes something away. */
export type Rank = "main" | "quiet" | "remove";

const LOOKS: Record<Rank, string> = {
  main: "btn-neutral",
  quiet: "font-medium",
  remove: "btn-ghost mt-1 self-start font-normal text-error",
};

interface Props {
  words: string;
  rank?: Rank;
  title?: string;
  icon?: ReactNode;
  off?: boolean;
  pressed?: boolean;
  onDo: () => void;
}

/** A button of a panel. */
export function Deed({ words, rank = "quiet", title, icon, off = false, pressed, onDo }: Props) {
  return (
    <button
      type="button"
      className={clsx("btn btn-sm pointer-coarse:h-11", pressed ? "btn-secondary" : LOOKS[rank])}
      disabled={off}
      title={title}
      aria-pressed={pressed}
      onClick={onDo}
    >
      {icon} {words}
    </button>
  );
}
