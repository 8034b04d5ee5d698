import { type RefObject, useEffect } from "react";
import { goalAt, placeFiles } from "../gestures/files";

/** Files that are let go of over the song are placed where they were. */
export function useDropFiles(box: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const element = box.current;
    const over = (event: DragEvent) => event.dataTransfer?.types.includes("Files") && event.preventDefault();
    const drop = (event: DragEvent) => {
      const files = [...(event.dataTransfer?.files ?? [])];
      if (files.length === 0) return;
      event.preventDefault();
      void placeFiles(files, goalAt(event.clientX, event.clientY));
    };
    element?.addEventListener("dragover", over);
    element?.addEventListener("drop", drop);
    return () => {
      element?.removeEventListener("dragover", over);
      element?.removeEventListener("drop", drop);
    };
  }, [box]);
}
