import { useEffect, useState } from "react";
import { Refused, songApi } from "../../../api/client";
import type { Explanation } from "../../../api/types";
import { askAgain } from "../../../state/askingAgain";
import { useHand } from "../../../state/hand";
import { useSong } from "../../../state/song";
import { transportNow, useTransport } from "../../../state/transport";
import { useView } from "../../../state/view";

/** Why a parameter has its value, at the playhead or under the pointer; null until the answer is there. */
export function useExplanation(address: string | null): { found: Explanation | null; fault: string | null } {
  const [state, setState] = useState<{ found: Explanation | null; fault: string | null }>({ found: null, fault: null });
  const revision = useSong((s) => s.revision);
  const resting = useSong((s) => s.resting);
  const atPointer = useView((s) => s.sumAtPointer);
  const pointed = useHand((s) => (atPointer ? s.pointer : null));
  const still = useTransport((s) => pointed ?? (s.playing ? -1 : s.playhead));
  const playing = useTransport((s) => s.playing && pointed === null);
  const songId = useSong((s) => s.songId);
  // biome-ignore lint/correctness/useExhaustiveDependencies: worked out again just when one of these changes
  useEffect(() => {
    if (!address || songId === null) return;
    let over = false;
    const take = (found: Explanation | null, fault: string | null = null) => !over && setState({ found, fault });
    void songApi(songId)
      .explanation(address, pointed ?? transportNow().playhead)
      .then(take, (error) => take(null, error instanceof Refused ? error.message : "No answer."));
    const again = ({ explanation }: { explanation: Explanation | null }) =>
      explanation?.address === address && take(explanation);
    const rest = playing ? askAgain({ addresses: [], explained: address, take: again }) : undefined;
    return () => {
      over = true;
      rest?.();
    };
  }, [address, songId, revision, resting, still, playing, pointed]);
  return state;
}
