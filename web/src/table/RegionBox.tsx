import { clsx } from "clsx";
import { MoonStar } from "lucide-react";
import { memo, useEffect, useRef } from "react";
import type { ClipPart, EnvelopePart, Pass, Px, RegionPart } from "../api/types";
import { NAME_HEIGHT } from "../geometry/heights";
import { hueStyle } from "../geometry/hue";
import { scaled } from "../geometry/text";
import { positionText, tickToX } from "../geometry/viewport";
import { regionMenu, restOnRegion } from "../gestures/menus";
import { pressRegion, pressRegionCorner, pressRegionEdge, regionKey } from "../gestures/regions";
import { findParameter } from "../state/catalogue";
import { useChoice } from "../state/choice";
import { edit } from "../state/edits";
import { useHand } from "../state/hand";
import { toggleRest } from "../state/listening";
import { lookup } from "../state/lookup";
import type { Model } from "../state/model";
import { useSong } from "../state/song";
import { useView } from "../state/view";
import { nameClip, setWishes, useWishes } from "../state/wishes";
import { TextField } from "../ui/Fields";
import { regionArrow } from "./rowKeys";
import { Material } from "./strips/Material";

interface Props {
  region: RegionPart;
  clip: ClipPart;
  shared: number;
  height: number;
  folded: boolean;
  /** Whether something else draws what lies in it. */
  bare?: boolean;
  view: [from: number, to: number];
}

const NO_PASSES: Pass[] = [];
const NO_MOVES: EnvelopePart[] = [];
/** Narrower than this, a region has no corners to drag. */
const CORNERED = scaled(48);
/** Beside a name: its own margins, and the mark that lets moves rest. */
const NAME_ROOM = scaled(44);
/** About how wide a letter of a name is. */
const LETTER = scaled(6.4);
const textWidth = (text: string): Px => text.length * LETTER;

const drumTrack = (model: Model, region: RegionPart) =>
  model.tracks.some(
    (track) => region.owner === `track/${track.id}` && track.devices.some((device) => device.type === "drum-kit"),
  );

/** What moves in a clip: by name where there is room, else how many; nothing where there is none for that. */
function useMoveWords(moves: EnvelopePart[], room: Px): { rests: boolean; words: string } {
  const rests = useSong((state) => moves.length > 0 && moves.every(({ id }) => state.rested.includes(id)));
  const names = useSong(({ catalogue, model }) =>
    [...new Set(moves.map(({ target }) => catalogue && findParameter(catalogue, model, target)?.entry.name))]
      .filter(Boolean)
      .join(", "),
  );
  const count = moves.length === 1 ? "1 move" : `${moves.length} moves`;
  const fitting = [names, count].find((text) => textWidth(text) <= room) ?? "";
  return { rests, words: moves.length === 0 ? "" : rests ? "rests" : fitting };
}

/** The mark that lets the moves of a clip rest for a listen; the keyboard has its command. */
const RestMark = ({ clip, rests }: { clip: ClipPart; rests: boolean }) => (
  // biome-ignore lint/a11y/noStaticElementInteractions: a region is one button; its moves rest by a command too
  <i
    className="rest-mark"
    data-rests={rests || undefined}
    title={rests ? "Its moves rest; a press brings them back" : `Hear ${clip.name} without its moves for a listen`}
    onPointerDown={(event) => event.stopPropagation()}
    onPointerUp={() => void toggleRest(`clip/${clip.id}`)}
    onDoubleClick={(event) => event.stopPropagation()}
  >
    <MoonStar size={11} aria-hidden="true" />
  </i>
);

/** One region: its name and, unfolded, its material. */
export const RegionBox = memo(function RegionBox({ region, clip, shared, height, folded, bare = false, view }: Props) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const selected = useChoice((state) => state.regionIds.includes(region.id));
  const drums = useSong(({ model, catalogue }) => (drumTrack(model, region) ? (catalogue?.drum_sounds ?? null) : null));
  const meters = useSong((state) => state.model.head.meters);
  const passes = useSong((state) => state.preview?.passes[region.id] ?? state.passes[region.id]) ?? NO_PASSES;
  const left = tickToX({ pxPerTick }, region.start_tick);
  const width = tickToX({ pxPerTick }, region.length_ticks);
  const end = region.start_tick + region.length_ticks;
  const [from, to] = [Math.max(region.start_tick, view[0]), Math.min(end, view[1])];
  const name = shared > 1 ? `${clip.name} · ${shared}×` : clip.name;
  const moves = useSong(({ model }) => lookup(model).envelopes[`clip/${clip.id}`]) ?? NO_MOVES;
  const room = width - NAME_ROOM - textWidth(name);
  const { rests, words } = useMoveWords(moves, room);
  const told = `${name}${region.muted ? " · muted" : ""}${words && ` ${words}`}`;
  const wished = useWishes((state) => state.region === region.id);
  const naming = useWishes((state) => state.clip === region.id);
  const fading = useHand((state) => (state.fading?.regionId === region.id ? state.fading : null));
  const muted = region.muted || clip.kind === "carrier";
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!wished) return;
    box.current?.focus();
    setWishes({ region: null });
  }, [wished]);
  return (
    <div
      ref={box}
      role="button"
      tabIndex={-1}
      aria-pressed={selected}
      aria-label={`${told}, region at ${positionText(meters, region.start_tick)}`}
      data-testid={region.id}
      className={clsx("region", selected && "held region-chosen", region.muted && "region-muted")}
      style={{
        ...(clip.hue ? hueStyle(clip.hue) : {}),
        left: left + 1,
        width: Math.max(6, width - 2),
        height: height - 4,
      }}
      onPointerDown={(event) => {
        restOnRegion(event, region);
        pressRegion(event, region);
      }}
      onContextMenu={(event) => regionMenu(event, region)}
      onDoubleClick={(event) => {
        if (event.clientY - event.currentTarget.getBoundingClientRect().top < NAME_HEIGHT) nameClip(region.id);
      }}
      onKeyDown={(event) => {
        if (!regionArrow(event, region)) return regionKey(event, region);
        event.preventDefault();
        event.stopPropagation();
      }}
    >
      {to > from && (
        <div className="hue absolute top-0" style={{ left: tickToX({ pxPerTick }, from - region.start_tick) }}>
          {!folded && !bare && (
            <Material clip={clip} passes={passes} from={from} to={to} height={height - 4} drums={drums} />
          )}
        </div>
      )}
      {passes.slice(1).map(([start]) => (
        <i
          key={start}
          className="absolute bottom-0 h-2 border-l"
          style={{ left: tickToX({ pxPerTick }, start - region.start_tick), borderColor: "var(--hue)" }}
        />
      ))}
      {(["start", "end"] as const).map((side) => (
        <i
          key={side}
          className={clsx("region-edge", side === "start" ? "left-0" : "right-0")}
          style={{ height: folded || bare ? "100%" : NAME_HEIGHT, touchAction: selected ? "none" : undefined }}
          title={
            side === "start" ? "Trim the start, or repeat the loop earlier" : "Trim the end, or repeat the loop later"
          }
          data-testid={`${side}-of-${region.id}`}
          onPointerDown={(event) => {
            // A finger trims what it has chosen; elsewhere it scrolls.
            if (selected || event.pointerType !== "touch") pressRegionEdge(event, region, side);
          }}
        />
      ))}
      {fading && (
        <i
          className="region-fading"
          style={{ [fading.side === "in" ? "left" : "right"]: 0, width: tickToX({ pxPerTick }, fading.length) }}
        />
      )}
      {!muted &&
        width > CORNERED &&
        (["in", "out"] as const).map((side) => (
          <i
            key={side}
            className={clsx("region-corner", `region-corner-${side}`)}
            style={{ touchAction: selected ? "none" : undefined }}
            title={`Drag inwards to fade ${side}`}
            data-testid={`fade-${side}-of-${region.id}`}
            onPointerDown={(event) => {
              if (selected || event.pointerType !== "touch") pressRegionCorner(event, region, side);
            }}
          />
        ))}
      {naming ? (
        <span className="clip-naming" onPointerDown={(event) => event.stopPropagation()}>
          <TextField
            label={`Name of ${clip.name}`}
            field="clip-name"
            value={clip.name}
            className="w-36"
            onCommit={(name) => edit("set_clip", { clip_id: clip.id, name })}
            onLeave={() => setWishes({ clip: null })}
          />
        </span>
      ) : (
        <span className={clsx("region-name hue", !folded && "sticky")} style={{ left: "var(--header-width)" }}>
          {name}
          {region.muted && " · muted"}
          {words && <span className="faint ml-1 font-normal"> {words}</span>}
          {moves.length > 0 && room >= 0 && <RestMark clip={clip} rests={rests} />}
        </span>
      )}
    </div>
  );
});
