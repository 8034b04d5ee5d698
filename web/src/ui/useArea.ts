import { type RefObject, useRef } from "react";
import { type AriaLandmarkRole, useLandmark } from "react-aria/useLandmark";

/** A named area of the page; F6 and Shift F6 go from one to the next, and back to where the keyboard was in it. */
export function useArea<E extends HTMLElement>(role: AriaLandmarkRole, label: string) {
  const ref: RefObject<E | null> = useRef<E>(null);
  const { landmarkProps } = useLandmark({ role, "aria-label": label }, ref);
  return { ref, ...landmarkProps };
}
