import type { TrackPart } from "../../api/types";
import { hueStyle } from "../../geometry/hue";
import { lettersOf } from "../../gestures/inputs";
import { usePlayIn } from "../../state/playIn";
import { useKeyed } from "./useKeyed";
import { usePlayed } from "./usePlayed";

/** The sounds of a kit, each under its name. */
export function Pads({ track, kit }: { track: TrackPart; kit: [number, string][] }) {
  const held = usePlayIn((state) => state.held);
  const typing = usePlayIn((state) => state.typing);
  const played = usePlayed();
  const { keyRef, handlers } = useKeyed(kit.map(([pitch]) => pitch));
  return (
    <div
      className="pads"
      role="group"
      aria-label={`Sounds of ${track.name}`}
      style={hueStyle(track.hue)}
      {...played}
      {...handlers}
    >
      {kit.map(([pitch, name], i) => (
        <button
          key={pitch}
          ref={keyRef(pitch)}
          type="button"
          className="pad"
          data-pitch={pitch}
          data-held={held.includes(pitch) || undefined}
          tabIndex={i === 0 ? 0 : -1}
        >
          {name}
          {typing && <kbd className="faint text-xs">{lettersOf(i, true)}</kbd>}
        </button>
      ))}
    </div>
  );
}
