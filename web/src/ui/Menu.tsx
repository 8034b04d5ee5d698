import { clsx } from "clsx";
import type { CSSProperties, ReactNode } from "react";
import { Button, Menu, MenuItem, MenuTrigger, Popover } from "react-aria-components";

export interface Deed {
  id: string;
  words: string;
  /** What it does, in a line. */
  what?: string;
  act: () => unknown;
  off?: boolean;
  removes?: boolean;
}

interface Props {
  label: string;
  title?: string;
  className?: string;
  /** How the button looks, in place of the usual way. */
  look?: string;
  style?: CSSProperties;
  /** What stands over the deeds. */
  head?: string;
  deeds: Deed[];
  children: ReactNode;
}

const USUAL = "btn btn-ghost btn-sm px-2 font-normal pointer-coarse:h-11";

/** A button behind which deeds stand. Arrows walk through them, letters find them, Escape closes. */
export function DeedMenu({ label, title, className, look = USUAL, style, head, deeds, children }: Props) {
  return (
    <MenuTrigger>
      <Button aria-label={label} style={style} className={clsx(look, className)}>
        <span title={title} className="contents">
          {children}
        </span>
      </Button>
      <Popover className="popover" offset={4}>
        {head && <p className="faint px-3 py-1 text-xs">{head}</p>}
        <DeedList label={label} deeds={deeds} />
      </Popover>
    </MenuTrigger>
  );
}

interface ListProps {
  label: string;
  deeds: Deed[];
  focused?: boolean;
  onClose?: () => void;
}

/** The deeds themselves, in a popover. */
export function DeedList({ label, deeds, focused = false, onClose }: ListProps) {
  const act = (key: string | number) => {
    onClose?.();
    void deeds.find((deed) => deed.id === key)?.act();
  };
  return (
    <Menu
      aria-label={label}
      className="deeds"
      autoFocus={focused ? "first" : undefined}
      onAction={act}
      onClose={onClose}
      disabledKeys={deeds.filter((deed) => deed.off).map(({ id }) => id)}
    >
      {deeds.map(({ id, words, what, removes }) => (
        <MenuItem key={id} id={id} textValue={words} className="deed">
          <span className={clsx("font-semibold", removes && "text-error")}>{words}</span>
          {what && <span className="faint text-xs">{what}</span>}
        </MenuItem>
      ))}
    </Menu>
  );
}
