import type { CSSProperties, ReactNode } from "react";
import { Button, MenuTrigger, Popover } from "react-aria-components";
import type { Subject } from "../state/menu";
import { DeedList } from "../ui/Menu";
import { commandsOf, headOf } from ".";
import { type Command, entryOf } from "./command";

interface ListProps {
  subject: Subject;
  label: string;
  /** Commands that stand before its own. */
  before?: Command[];
  focused?: boolean;
  onClose?: () => void;
}

/** All that can be done to something, as it stands when the list opens; what cannot be done says why. */
export function CommandList({ subject, label, before = [], focused, onClose }: ListProps) {
  const deeds = [...before, ...commandsOf(subject)].map(entryOf);
  return (
    <>
      <p className="faint px-3 py-1 text-xs">{headOf(subject)}</p>
      <DeedList label={label} deeds={deeds} focused={focused} onClose={onClose} />
    </>
  );
}

interface Props {
  subject: Subject;
  label: string;
  before?: Command[];
  title?: string;
  /** Whether arrows lead to it rather than Tab. */
  aside?: boolean;
  look: string;
  style?: CSSProperties;
  children: ReactNode;
}

/** A button that opens them. */
export function CommandMenu({ subject, label, before, title, aside, look, style, children }: Props) {
  return (
    <MenuTrigger>
      <Button aria-label={label} style={style} className={look} excludeFromTabOrder={aside}>
        <span title={title} className="contents">
          {children}
        </span>
      </Button>
      <Popover className="popover" offset={4}>
        <CommandList subject={subject} label={label} before={before} />
      </Popover>
    </MenuTrigger>
  );
}
