import { useEffect } from "react";
import { songApi } from "../../api/client";
import { askAgain } from "../../state/askingAgain";
import { type SongState, setSong, useSong } from "../../state/song";
import { transportNow, useTransport } from "../../state/transport";

/** What the core says is heard at the playhead, to the last digit, of every knob on the screen. */
export function useExactValues(addresses: string): void {
  const songId = useSong((state) => state.songId);
  const trying = useSong((state) => state.preview !== null);
  const revision = useSong((state) => state.revision);
  const resting = useSong((state) => state.resting);
  const playing = useTransport((state) => state.playing);
  const still = useTransport((state) => (state.playing ? null : state.playhead));
  // biome-ignore lint/correctness/useExhaustiveDependencies: worked out again just when one of these changes
  useEffect(() => {
    if (songId === null || trying || addresses === "") return;
    let over = false;
    const wanted = addresses.split(",");
    const take = (exact: Exact) => {
      if (!over) setSong((state) => ({ exact: { ...state.exact, ...changed(state.exact, exact) } }));
    };
    void songApi(songId)
      .values(wanted, transportNow().playhead)
      .then(take, () => undefined);
    const rest = playing
      ? askAgain({ addresses: wanted, explained: null, take: ({ values }) => take(values) })
      : undefined;
    return () => {
      over = true;
      rest?.();
    };
  }, [songId, addresses, trying, playing, still, revision, resting]);
}

type Exact = SongState["exact"];

/** Those that are not what they were; the others stay the very same, so that what shows them is not drawn again. */
const changed = (before: Exact, now: Exact): Exact =>
  Object.fromEntries(
    Object.entries(now).filter(([address, [value, text]]) => {
      const [known, words] = before[address] ?? [];
      return value !== known || text !== words;
    }),
  );
