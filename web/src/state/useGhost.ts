import { useEffect, useRef } from "react";
import type { EditInputs } from "../api/types";
import { previewer, type Trial } from "./previewer";

/**
 * Shows on the song what a press would make, while the pointer or the keyboard is on the button; asked again when the
 * inputs change. `inputs` gives null for nothing.
 */
export function useGhost<K extends keyof EditInputs>(name: K, inputs: () => EditInputs[K] | null) {
  const trial = useRef<Trial | null>(null);
  const end = (dropped: boolean) => {
    trial.current?.end(dropped);
    trial.current = null;
  };
  const show = () => {
    const given = inputs();
    if (!given) return;
    trial.current ??= previewer();
    trial.current.ask(name, given);
  };
  const wish = JSON.stringify(inputs());
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again when what is wished changes
  useEffect(() => {
    if (trial.current) show();
  }, [wish]);
  useEffect(() => () => trial.current?.end(false), []);
  return {
    done: () => end(true),
    props: {
      onPointerEnter: (event: { pointerType: string }) => event.pointerType === "mouse" && show(),
      onPointerLeave: () => end(false),
      onFocus: show,
      onBlur: () => end(false),
    },
  };
}
