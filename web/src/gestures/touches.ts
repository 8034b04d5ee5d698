/** Fingers that are down now, by pointer. */
const down = new Set<number>();
let several = false;

/** Whether more than one finger took part since the screen was last free: then nothing any of them does is a press. */
export const severalFingers = (): boolean => several;

const touching = ({ pointerType }: PointerEvent): boolean => pointerType === "touch";

function onDown(event: PointerEvent): void {
  if (!touching(event)) return;
  down.add(event.pointerId);
  if (down.size > 1) several = true;
}

/** The screen is free only after the handlers of the last finger have run. */
function onGone(event: PointerEvent): void {
  if (!touching(event)) return;
  down.delete(event.pointerId);
  if (down.size === 0)
    setTimeout(() => {
      if (down.size === 0) several = false;
    });
}

window.addEventListener("pointerdown", onDown, true);
window.addEventListener("pointerup", onGone, true);
window.addEventListener("pointercancel", onGone, true);
