import { type RefObject, useLayoutEffect, useState } from "react";
import type { Px } from "../api/types";

/** How wide a part of the page is now. */
export function useWidth(box: RefObject<HTMLElement | null>): Px {
  const [width, setWidth] = useState<Px>(0);
  useLayoutEffect(() => {
    const element = box.current;
    if (!element) return;
    const look = () => setWidth(element.clientWidth);
    look();
    const sized = new ResizeObserver(look);
    sized.observe(element);
    return () => sized.disconnect();
  }, [box]);
  return width;
}
