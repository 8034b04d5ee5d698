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
  const act = (key: string | number) => void deeds.find((deed) => deed.id === key)?.act();
  return (
    <MenuTrigger>
      <Button aria-label={label} style={style} className={clsx(look, className)}>
        <span title={title} className="contents">
          {children}
        </span>
      </Button>
      <Popover className="popover" offset={4}>
        {head && <p className="faint px-3 py-1 text-xs">{head}</p>}
        <Menu
          aria-label={label}
          className="deeds"
          onAction={act}
          disabledKeys={deeds.filter((deed) => deed.off).map(({ id }) => id)}
        >
          {deeds.map(({ id, words, what }) => (
            <MenuItem key={id} id={id} textValue={words} className="deed">
              <span className="font-semibold">{words}</span>
              {what && <span className="faint text-xs">{what}</span>}
            </MenuItem>
          ))}
        </Menu>
      </Popover>
    </MenuTrigger>
  );
}
