import type { KeyboardEvent, ReactNode } from "react";
import { FocusScope, useFocusManager } from "react-aria/FocusScope";

/** Many things that Tab passes in one step: it leaves them at once, and arrows across walk through them. */
export function OneStop({ children }: { children: ReactNode }) {
  return (
    <FocusScope>
      <Walked>{children}</Walked>
    </FocusScope>
  );
}

function Walked({ children }: { children: ReactNode }) {
  const manager = useFocusManager();
  const onKey = (event: KeyboardEvent) => {
    // Menus and boxes that are opened from it lie elsewhere on the page and have their own keys.
    if (!event.currentTarget.contains(event.target as Node)) return;
    // From the last of them the browser goes on to what comes after, from the first to what comes before.
    if (event.key === "Tab") {
      if (event.shiftKey) manager?.focusFirst({ tabbable: true });
      else manager?.focusLast({ tabbable: true });
      return;
    }
    if (event.altKey || event.ctrlKey || event.metaKey || event.target instanceof HTMLInputElement) return;
    if (event.key === "ArrowRight") manager?.focusNext({ tabbable: true });
    else if (event.key === "ArrowLeft") manager?.focusPrevious({ tabbable: true });
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: what is in it takes the keyboard
    <div className="contents" onKeyDown={onKey}>
      {children}
    </div>
  );
}
