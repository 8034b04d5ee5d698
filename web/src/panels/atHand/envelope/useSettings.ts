import { useEffect, useState } from "react";
import type { MoveSettings } from "../../../api/types";
import { api } from "../../../state/questions";
import { useSong } from "../../../state/song";

/** What is set of a move, as the core writes it. */
export function useSettings(envelopeId: string): MoveSettings | null {
  const revision = useSong((state) => state.revision);
  const [found, setFound] = useState<MoveSettings | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again whenever the song has changed
  useEffect(() => {
    let over = false;
    api()
      .moveSettings(envelopeId)
      .then((answer) => !over && setFound(answer))
      .catch(() => undefined);
    return () => {
      over = true;
    };
  }, [envelopeId, revision]);
  return found;
}
