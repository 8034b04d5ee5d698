import { BookOpen, CircleHelp, X } from "lucide-react";
import { turnHelp, useHelp } from "../state/help";
import { IconButton } from "../ui/IconButton";

/** What panels are for, in the words of the guide, and the way to more of it. */
export function HelpBox({ names }: { names: string[] }) {
  const { open, topics } = useHelp();
  if (!open || !topics) return null;
  return (
    <section className="help-box" aria-label="Help">
      <span className="float-right">
        <IconButton label="Close the help" onPress={() => void turnHelp()}>
          <X size={14} />
        </IconButton>
      </span>
      {names.map((name) => (
        <p key={name}>
          <strong>{name}</strong> {topics[name]?.words}{" "}
          <a className="whitespace-nowrap underline" href={topics[name]?.page} target="_blank" rel="noreferrer">
            <BookOpen size={12} className="inline" aria-hidden="true" /> more in the guide
          </a>
        </p>
      ))}
    </section>
  );
}

/** Asks what the panels in view are for. */
export function HelpButton({ look, before }: { look: string; before?: () => void }) {
  const open = useHelp((state) => state.open);
  return (
    <button
      type="button"
      className={look}
      aria-expanded={open}
      title="What this is for"
      onClick={() => {
        before?.();
        void turnHelp();
      }}
    >
      <CircleHelp size={17} aria-hidden="true" />
      Help
    </button>
  );
}
