import { useRef } from "react";
import { Menu, MenuItem, Popover } from "react-aria-components";
import { COMMANDS } from "../commands";
import { type Command, hintOf, wordsOf } from "../commands/command";
import { closeMenu, type Kind, useMenu } from "../state/menu";
import { useBarDeeds } from "./barDeeds";

const HEADS: Record<Kind, string> = {
  regions: "The chosen regions",
  points: "The chosen points or span",
  bars: "Bars of the song",
};

interface Item {
  id: string;
  words: string;
  what: string;
  why: string | null;
  removes?: boolean;
  run: () => unknown;
}

const itemOf = (command: Command): Item => ({
  ...command,
  words: wordsOf(command),
  what: command.what + hintOf(command),
  why: command.why(),
});

/** The menu of a right press, a long press or the menu key: all that can be done to what is under it. */
export function ThingMenu() {
  const menu = useMenu((state) => state.menu);
  const bars = useBarDeeds();
  const spot = useRef<HTMLSpanElement>(null);
  if (!menu) return null;
  const { kind, x, y } = menu;
  const items: Item[] =
    kind === "bars"
      ? bars.deeds.map(({ id, words, what = "", off, act }) => ({
          id,
          words,
          what,
          why: off ? what : null,
          run: act,
        }))
      : COMMANDS[kind].map(itemOf);
  return (
    <>
      <span ref={spot} className="pointer-events-none fixed size-px" style={{ left: x, top: y }} />
      <Popover
        className="popover"
        triggerRef={spot}
        isOpen
        placement="bottom start"
        onOpenChange={(open) => open || closeMenu()}
        offset={2}
      >
        <p className="faint px-3 py-1 text-xs">{kind === "bars" ? bars.head : HEADS[kind]}</p>
        <Menu
          aria-label={HEADS[kind]}
          className="deeds"
          autoFocus="first"
          onAction={(id) => {
            closeMenu();
            void items.find((item) => item.id === id)?.run();
          }}
          onClose={closeMenu}
          disabledKeys={items.filter(({ why }) => why).map(({ id }) => id)}
        >
          {items.map(({ id, words, what, why, removes }) => (
            <MenuItem key={id} id={id} textValue={words} className="deed">
              <span className={`font-semibold ${removes ? "text-error" : ""}`}>{words}</span>
              <span className="faint text-xs">{why ?? what}</span>
            </MenuItem>
          ))}
        </Menu>
      </Popover>
    </>
  );
}
