import { clsx } from "clsx";
import { MoveVertical } from "lucide-react";
import { type PointerEvent, useRef } from "react";
import type { EnvelopePart, TrackPart } from "../api/types";
import { CommandMenu } from "../commands/CommandMenu";
import { FOLDED_HEIGHT, hasLanes } from "../geometry/heights";
import { hueStyle, parameterHue } from "../geometry/hue";
import { scaled } from "../geometry/text";
import { RESTED_MS, whenRested } from "../gestures/hold";
import { thingMenu } from "../gestures/menus";
import { pressRaise, raiseKey } from "../gestures/raise";
import { findParameter, isHeld, targetsOn } from "../state/catalogue";
import { holdsRegions } from "../state/holds";
import { keyHint } from "../state/keyMap";
import { inHand, layersOf, useLayer } from "../state/layers";
import { type Lookup, lookup } from "../state/lookup";
import type { Subject } from "../state/menu";
import type { Model } from "../state/model";
import { useSong } from "../state/song";
import { switchMoves } from "../state/switching";
import { useStrips } from "../state/useStrips";
import { setView, turnNotes, useView, viewNow } from "../state/view";
import { useNarrow } from "../ui/useNarrow";
import { LayerSwitch } from "./LayerSwitch";

const NONE: never[] = [];
/** How tall a chip is with the gap after it, and what stands under the chips. */
const CHIP = scaled(26);
const UNDER_CHIPS = scaled(30);

/** The names of an unfolded track's strips, beside them. */
export function StripNames({
  track,
  model,
  find,
  focus,
}: {
  track: TrackPart;
  model: Model;
  find: Lookup;
  focus: string | null;
}) {
  const catalogue = useSong((state) => state.catalogue);
  const clipIds = (find.regions[`track/${track.id}`] ?? NONE).map((region) => region.clip_id);
  const owners = [`track/${track.id}`, ...new Set(clipIds.map((id) => `clip/${id}`))];
  const inClips = owners.slice(1).flatMap((owner) => find.envelopes[owner] ?? []);
  const targets = [
    ...new Set([
      ...(focus ? [focus] : []),
      ...owners.flatMap((owner) => find.envelopes[owner] ?? []).map((envelope) => envelope.target),
      ...targetsOn(model, track.id),
    ]),
  ];
  const shown = focus && catalogue ? findParameter(catalogue, model, focus) : null;
  const waits = shown && isHeld(model, shown) ? " waits" : "";
  const holds = holdsRegions(track);
  const { material, lane, heard } = useStrips(track.id);
  const laneTop = holds ? material : 0;
  const heardTop = laneTop + (hasLanes(track) ? lane : 0);
  const narrow = useNarrow();
  const focused = inClips.filter((envelope) => envelope.target === focus);
  const layer = useLayer(track.id, "clip");
  const layered = layersOf(focused).length > 1;
  const named = targets.map((address) => catalogue && findParameter(catalogue, model, address)?.entry.name);
  const name = (address: string) => {
    const placed = catalogue && findParameter(catalogue, model, address);
    if (!placed) return "a knob that is gone";
    const alone = named.filter((other) => other === placed.entry.name).length < 2;
    return alone ? placed.entry.name : `${placed.entry.name}, ${placed.device}`;
  };
  return (
    <div className="relative grow">
      <ShownParameters
        track={track}
        focus={focus}
        targets={targets.sort()}
        name={name}
        room={narrow || !holds ? 0 : Math.max(1, Math.floor((material - FOLDED_HEIGHT - UNDER_CHIPS) / CHIP))}
      />
      {holds && (
        <p
          className="faint absolute left-3 flex items-center gap-1.5 text-xs"
          style={{ top: material - FOLDED_HEIGHT - scaled(28) }}
        >
          {track.kind === "notes" && <NotesSwitch track={track} />}
          {!(narrow && (layered || track.kind === "notes")) && (
            <>
              <EnvelopeWord envelope={inHand(focused, layer)} words="clip" name={shown?.entry.name ?? ""} />
              {waits}
            </>
          )}
          <LayerSwitch trackId={track.id} level="clip" envelopes={focused} name={shown?.entry.name ?? ""} />
        </p>
      )}
      {hasLanes(track) && (
        <LaneName
          track={track}
          find={find}
          focus={focus}
          waits={waits}
          top={laneTop + lane / 2 - FOLDED_HEIGHT - scaled(8) + (holds ? 0 : scaled(30))}
        />
      )}
      <p className="faint absolute left-3 text-xs" style={{ top: heardTop + heard / 2 - FOLDED_HEIGHT - scaled(6) }}>
        heard
      </p>
    </div>
  );
}

interface ShownProps {
  track: TrackPart;
  focus: string | null;
  targets: string[];
  name: (address: string) => string;
  /** For how many chips there is room; without any, a list takes their place. */
  room: number;
}

/** The parameters of an unfolded track that anything moves: a chip each at the edge of its strips, or a list. */
function ShownParameters({ track, focus, targets, name, room }: ShownProps) {
  const label = `Parameter shown on ${track.name}`;
  const show = (address: string) => setView({ focus: { ...viewNow().focus, [track.id]: address } });
  const fits = targets.length <= room;
  const inOrder = [...new Set([focus, ...targets])].filter((one) => one !== null);
  const first = fits ? targets : inOrder.slice(0, Math.max(0, room - 1));
  const rest = targets.filter((address) => !first.includes(address));
  return (
    <div className="chips" role="group" aria-label={label}>
      {first.map((address) => (
        <Chip key={address} address={address} words={name(address)} shown={address === focus} onShow={show} />
      ))}
      {(rest.length > 0 || targets.length === 0) && (
        <select
          tabIndex={-1}
          className="strip-select"
          aria-label={label}
          value={rest.includes(focus ?? "") ? (focus ?? "") : ""}
          onChange={(event) => show(event.target.value)}
        >
          {!rest.includes(focus ?? "") && <option value="">{rest.length} more</option>}
          {rest.map((address) => (
            <option key={address} value={address}>
              {name(address)}
            </option>
          ))}
        </select>
      )}
    </div>
  );
}

interface ChipProps {
  address: string;
  words: string;
  shown: boolean;
  onShow: (address: string) => void;
}

/** A press shows its parameter in the strips; held, all that moves it goes off, and on again; a right press asks. */
function Chip({ address, words, shown, onShow }: ChipProps) {
  const subject: Subject = { kind: "knob", address };
  const envelopes = useSong(({ model }) => lookup(model).targets[address]) ?? NONE;
  const off = envelopes.length > 0 && envelopes.every(({ on }: EnvelopePart) => !on);
  const held = useRef(false);
  const hold = (event: PointerEvent) => {
    held.current = false;
    if (event.button !== 0) return;
    whenRested(event, RESTED_MS, () => {
      held.current = true;
      switchMoves(address, envelopes);
    });
  };
  return (
    <button
      type="button"
      tabIndex={-1}
      className={clsx("chip", shown && "chip-shown", off && "chip-off")}
      style={hueStyle(parameterHue(address))}
      aria-pressed={shown}
      data-testid={`chip-${address}`}
      title={`${words}${off ? ", off" : ""}: a press shows it, held it goes ${off ? "on" : "off"}`}
      onClick={() => held.current || onShow(address)}
      onPointerDown={hold}
      onContextMenu={(event) => thingMenu(event, subject)}
    >
      {words}
    </button>
  );
}

/** The word beside the lane in focus, and the grip that raises or lowers all of it. */
interface LaneNameProps {
  track: TrackPart;
  find: Lookup;
  focus: string | null;
  /** " waits" while a hand holds the knob, else nothing. */
  waits: string;
  top: number;
}

function LaneName({ track, find, focus, waits, top }: LaneNameProps) {
  const lanes = (find.envelopes[`track/${track.id}`] ?? []).filter((entry) => entry.target === focus);
  const lane = inHand(lanes, useLayer(track.id, "lane"));
  const catalogue = useSong((state) => state.catalogue);
  const model = useSong((state) => state.model);
  const placed = focus && catalogue ? findParameter(catalogue, model, focus) : null;
  const trims = lane?.fader === "trim" && lane.role === "set";
  return (
    <p className="faint absolute left-3 flex items-center gap-1 text-xs" style={{ top }}>
      <EnvelopeWord envelope={lane} words={trims ? "lane + fader" : "lane"} name={placed?.entry.name ?? ""} />
      {waits}
      <LayerSwitch trackId={track.id} level="lane" envelopes={lanes} name={placed?.entry.name ?? ""} />
      {lane && placed && !placed.scale.set_only && lane.points.length > 0 && (
        <button
          type="button"
          tabIndex={-1}
          className="btn btn-ghost btn-xs h-6 min-h-6 touch-none cursor-ns-resize px-1 font-normal pointer-coarse:h-10"
          aria-label={`Raise or lower all of the lane of ${placed.entry.name}`}
          title="Drag up or down: all of the lane"
          onPointerDown={(event) => pressRaise(event, lane, placed.scale)}
          onKeyDown={(event) => raiseKey(event, lane, placed.scale)}
        >
          <MoveVertical size={12} />
        </button>
      )}
    </p>
  );
}

/** Turns the strip between the clips' moves and their notes. */
function NotesSwitch({ track }: { track: TrackPart }) {
  const notes = useView((state) => state.notes[track.id] ?? false);
  return (
    <button
      type="button"
      tabIndex={-1}
      className="layer pointer-coarse:h-11"
      aria-label={`${notes ? "notes" : "moves"} of ${track.name} in the strip`}
      data-testid={`strip-switch-${track.id}`}
      aria-pressed={notes}
      title={`${notes ? "Show the moves" : "Show the notes"} ${keyHint("notes")}`}
      onClick={() => turnNotes(track.id)}
    >
      {notes ? "notes" : "moves"}
    </button>
  );
}

/** What a strip is called: where an envelope is in hand, a press shows what can be done with all of it. */
function EnvelopeWord({ envelope, words, name }: { envelope: EnvelopePart | undefined; words: string; name: string }) {
  if (!envelope) return words;
  const subject: Subject = { kind: "envelope", envelopeId: envelope.id };
  return (
    <CommandMenu
      subject={subject}
      label={`What can be done with the ${words} of ${name}`}
      title="What can be done with all of it"
      aside
      look="layer pointer-coarse:h-11"
    >
      {words}
    </CommandMenu>
  );
}
