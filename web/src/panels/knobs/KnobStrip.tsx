import { clsx } from "clsx";
import { Plus } from "lucide-react";
import { useEffect, useState } from "react";
import type { Catalogue, TrackPart } from "../../api/types";
import { acting } from "../../state/acting";
import { type Placed, parametersOf } from "../../state/catalogue";
import { drawHeard, heardInView } from "../../state/drawing";
import { editAndTell } from "../../state/edits";
import type { Lookup } from "../../state/lookup";
import { useSong } from "../../state/song";
import { useShown } from "../../state/useShown";
import { useView } from "../../state/view";
import { openField } from "../../state/wishes";
import { DeedMenu } from "../../ui/Menu";
import { DeviceHead, typesFor } from "./DeviceHead";
import { Knob } from "./Knob";
import { useExactValues } from "./useExactValues";

/**
 * A device with very many parameters shows the first of them, and all that move or are in focus; the finder has the
 * rest.
 */
const MOST = 24;
const FIRST = 6;
const shownOf = (list: Placed[], find: Lookup, focus: string | null): Placed[] =>
  list.length <= MOST
    ? list
    : list.filter((placed, i) => i < FIRST || placed.address === focus || find.targets[placed.address]);

/** The devices of the selected track, a card each, in the order the sound goes through them. */
export function KnobStrip() {
  const catalogue = useSong((state) => state.catalogue);
  const trackId = useView((state) => state.trackId);
  const focus = useView((state) => (trackId ? state.focus[trackId] : null));
  const { model, find } = useShown();
  const track = model.tracks.find((entry) => entry.id === trackId);
  // biome-ignore lint/correctness/useExhaustiveDependencies: worked out again just when one of these changes
  useEffect(() => drawHeard(heardInView()), [trackId, model]);
  const devices = catalogue && track ? parametersOf(catalogue, model.tracks, track) : [];
  const cards = devices.map((device) => ({ ...device, shown: shownOf(device.list, find, focus) }));
  useExactValues(cards.flatMap(({ shown }) => shown.map(({ address }) => address)).join(","));
  const [carried, setCarried] = useState<number | null>(null);
  const [boxes] = useState(() => new Map<string, HTMLElement>());
  if (!catalogue || !track) return <p className="faint p-4">Select a track to see its knobs.</p>;
  if (track.kind === "carrier")
    return (
      <p className="faint p-4">
        A carrier track has no knobs of its own. Select one of its clips, then another track or the finder (/), and
        press the + of any knob.
      </p>
    );
  const beforeAt = (x: number): string | null => {
    const over = track.devices.find(({ id }) => {
      const box = boxes.get(id)?.getBoundingClientRect();
      return box !== undefined && x < box.left + box.width / 2;
    });
    return over && over.type !== "channel" ? over.id : null;
  };
  return (
    <div className="flex h-full" aria-label={`Knobs of ${track.name}`} role="group">
      <div className="fade-x flex h-full min-w-0 gap-2 overflow-auto p-2">
        {cards.map((device) => (
          <section
            key={device.id}
            ref={(card) => {
              if (card) boxes.set(device.id, card);
              else boxes.delete(device.id);
            }}
            className={clsx("device-card", carried !== null && beforeAt(carried) === device.id && "drop-before")}
            aria-label={device.name}
          >
            <DeviceHead
              track={track}
              device={track.devices.find(({ id }) => id === device.id) as TrackPart["devices"][number]}
              name={device.name}
              beforeAt={beforeAt}
              onCarry={setCarried}
            />
            <div className="flex">
              {device.shown.map((placed) => (
                <Knob
                  key={placed.address}
                  track={track}
                  placed={placed}
                  acts={acting(find, placed.address)}
                  focused={focus === placed.address}
                />
              ))}
              {device.list.length > MOST && (
                <button
                  type="button"
                  className="btn btn-ghost btn-sm mx-1 h-16 w-20 self-center font-normal whitespace-normal"
                  onClick={() => openField("find", "finder")}
                >
                  find among {device.list.length}
                </button>
              )}
            </div>
          </section>
        ))}
      </div>
      <AddDevice track={track} catalogue={catalogue} />
    </div>
  );
}

/** Puts an effect at the end of the chain; or an instrument at its head, where there is none. */
function AddDevice({ track, catalogue }: { track: TrackPart; catalogue: Catalogue }) {
  const played = track.devices.some(({ type }) => catalogue.devices[type]?.role === "instrument");
  const types = [...(played ? [] : typesFor(catalogue, track, "instrument")), ...typesFor(catalogue, track, "effect")];
  const deeds = types.map(([type, name]) => ({
    id: type,
    words: name,
    act: () => editAndTell("add_device", { track_id: track.id, type }),
  }));
  return (
    <DeedMenu label="Add a device" title={`A device for ${track.name}`} look="add-device" deeds={deeds}>
      <Plus size={16} aria-hidden="true" /> Device
    </DeedMenu>
  );
}
