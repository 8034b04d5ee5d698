import { useRef } from "react";
import { Popover } from "react-aria-components";
import { KIND_WORDS } from "../commands";
import { CommandList } from "../commands/CommandMenu";
import { closeMenu, useMenu } from "../state/menu";

/** The menu of a right press, a long press or the menu key: all that can be done to what is under it. */
export function ThingMenu() {
  const menu = useMenu((state) => state.menu);
  const spot = useRef<HTMLSpanElement>(null);
  if (!menu) return null;
  const { subject, x, y } = menu;
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
        <CommandList subject={subject} label={KIND_WORDS[subject.kind]} focused onClose={closeMenu} />
      </Popover>
    </>
  );
}
