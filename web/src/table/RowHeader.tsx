import { clsx } from "clsx";
import { ChevronDown, ChevronRight } from "lucide-react";
import { type ReactNode, useEffect, useRef } from "react";
import { FocusScope, useFocusManager } from "react-aria/FocusScope";
import type { TrackPart } from "../api/types";
import { FOLDED_HEIGHT } from "../geometry/heights";
import { holdable } from "../gestures/hold";
import { restOnThing, thingMenu } from "../gestures/menus";
import { pressTrack, trackKey } from "../gestures/tracks";
import { chooseRegions, chosenNow, setChoice } from "../state/choice";
import { edit } from "../state/edits";
import { toggleFold } from "../state/folding";
import type { Lookup } from "../state/lookup";
import type { Subject } from "../state/menu";
import type { Model } from "../state/model";
import { song, useSong } from "../state/song";
import { setView, useView } from "../state/view";
import { nameTrack, setWishes, useWishes } from "../state/wishes";
import { TextField } from "../ui/Fields";
import { useRoomy } from "../ui/useNarrow";
import { ArmButton } from "./ArmButton";
import { ListenButtons } from "./ListenButtons";
import { headerKey } from "./rowKeys";
import { StripNames } from "./StripNames";

interface Props {
  track: TrackPart;
  model: Model;
  find: Lookup;
  focus: string | null;
  width: number;
}

/** What stands left of a row: fold, name, mute and solo, and the names of the strips. */
export function RowHeader({ track, model, find, focus, width }: Props) {
  const unfolded = useView((state) => state.unfolded.includes(track.id));
  const chosen = useView((state) => state.trackId === track.id);
  const name = useRef<HTMLButtonElement>(null);
  const wished = useWishes((state) => state.header === track.id);
  const naming = useWishes((state) => state.track === track.id);
  const subject: Subject = { kind: "track", trackId: track.id };
  useEffect(() => {
    if (!wished) return;
    name.current?.focus();
    setWishes({ header: null });
  }, [wished]);
  return (
    <header
      className={clsx("row-header", chosen ? "bg-base-100" : "bg-base-200")}
      style={{ width, borderLeftColor: "var(--hue)" }}
    >
      <FocusScope>
        <Keyed track={track}>
          <div className="flex items-center" style={{ height: FOLDED_HEIGHT - 1 }}>
            <button
              type="button"
              tabIndex={-1}
              className="btn btn-ghost btn-sm btn-square h-7.5"
              aria-expanded={unfolded}
              aria-label={`${unfolded ? "Fold" : "Unfold"} ${track.name}`}
              onClick={() => toggleFold(track.id)}
            >
              {unfolded ? <ChevronDown size={16} /> : <ChevronRight size={16} />}
            </button>
            {naming ? (
              <TextField
                label={`Name of ${track.name}`}
                field="track-name"
                value={track.name}
                className="w-full"
                onCommit={(name) => edit("rename_track", { track_id: track.id, name })}
                onLeave={() => setWishes({ track: null })}
              />
            ) : (
              <button
                ref={(node) => {
                  name.current = node;
                  holdable(node);
                }}
                type="button"
                className={clsx("h-full min-w-0 grow truncate pr-2 text-left", chosen ? "font-bold" : "font-semibold")}
                aria-pressed={chosen}
                onPointerDown={(event) => {
                  restOnThing(event, subject);
                  pressTrack(event, track);
                }}
                onContextMenu={(event) => {
                  choose(track.id);
                  thingMenu(event, subject);
                }}
                onKeyDown={(event) => trackKey(event, track) && event.preventDefault()}
                onClick={() => choose(track.id)}
                onDoubleClick={() => nameTrack(track.id)}
              >
                {track.name}
                {track.kind !== "notes" && track.kind !== "audio" && track.kind !== "master" && (
                  <span className="faint ml-1.5 hidden text-xs font-normal sm:inline">{track.kind}</span>
                )}
              </button>
            )}
            <Listened track={track} />
          </div>
          {unfolded && <StripNames track={track} model={model} find={find} focus={focus} />}
        </Keyed>
      </FocusScope>
    </header>
  );
}

/** Arrows walk over what stands beside a row. */
function Keyed({ track, children }: { track: TrackPart; children: ReactNode }) {
  const beside = useFocusManager();
  return (
    <div
      className="contents"
      role="group"
      aria-label={track.name}
      onKeyDown={(event) => headerKey(event, track, beside)}
    >
      {children}
    </div>
  );
}

function choose(trackId: string): void {
  setView({ trackId });
  const { regionId } = chosenNow();
  const { model } = song();
  const region = regionId ? model.regions[regionId] : undefined;
  // A carrier clip stays at hand: it moves knobs of any track.
  if (!region || model.clips[region.clip_id].kind !== "carrier") chooseRegions([]);
  setChoice({ chosen: [], span: null });
}

/** Mute and solo, on a screen with room for them; else a word where a track is not heard. */
function Listened({ track }: { track: TrackPart }) {
  const silent = useSong((state) => state.silent.includes(track.id));
  const muted = useSong((state) => state.muted.includes(track.id));
  const roomy = useRoomy();
  const said = <span className="faint mr-1 text-xs">not heard</span>;
  if (!roomy || track.kind === "carrier") return silent && said;
  return (
    <>
      {silent && !muted && said}
      <ListenButtons track={track} inRow />
      <ArmButton trackId={track.id} name={track.name} inRow />
    </>
  );
}
