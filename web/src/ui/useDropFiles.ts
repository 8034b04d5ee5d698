import { type RefObject, useEffect, useRef } from "react";

/** Takes files dropped on a part of the page, while that part is on the screen. */
export function useDropFiles(
  box: RefObject<HTMLElement | null>,
  take: (files: File[], event: DragEvent) => void,
  there = true,
): void {
  const taking = useRef(take);
  taking.current = take;
  useEffect(() => {
    const element = there ? box.current : null;
    const over = (event: DragEvent) => event.dataTransfer?.types.includes("Files") && event.preventDefault();
    const drop = (event: DragEvent) => {
      const files = [...(event.dataTransfer?.files ?? [])];
      if (files.length === 0) return;
      event.preventDefault();
      taking.current(files, event);
    };
    element?.addEventListener("dragover", over);
    element?.addEventListener("drop", drop);
    return () => {
      element?.removeEventListener("dragover", over);
      element?.removeEventListener("drop", drop);
    };
  }, [box, there]);
}
