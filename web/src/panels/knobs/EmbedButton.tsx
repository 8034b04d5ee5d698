import { Plus } from "lucide-react";
import type { Acting } from "../../state/acting";
import type { Placed } from "../../state/catalogue";
import { chosenNow, setChoice, useChoice } from "../../state/choice";
import { edit } from "../../state/edits";
import { focusOn } from "../../state/focus";
import { lookup } from "../../state/lookup";
import { song, useSong } from "../../state/song";
import { setView, viewNow } from "../../state/view";
import { unfold } from "../../table/folding";
import { showTime } from "../../table/scrolling";

/** The one press that makes an envelope for a knob: in the selected clip, or with none selected on the track. */
export function EmbedButton({ placed, acts, focused }: { placed: Placed; acts: Acting; focused: boolean }) {
  const { address, entry } = placed;
  const trackId = address.split("/")[0];
  const regionId = useChoice((state) => state.regionId);
  const clip = useSong(({ model }) => {
    const region = regionId ? model.regions[regionId] : undefined;
    const clip = region && model.clips[region.clip_id];
    return clip && (region.owner === `track/${trackId}` || clip.kind === "carrier") ? clip : null;
  });
  const owner = clip ? `clip/${clip.id}` : `track/${trackId}`;
  const there = useSong(({ model }) =>
    (lookup(model).targets[address] ?? []).some((envelope) => envelope.owner === owner),
  );
  if (!entry.automatable || there) return null;
  const words = clip ? `Embed ${entry.name} in ${clip.name}` : `Add a lane for ${entry.name}`;
  const make = () => {
    focusOn(address);
    void (clip ? edit("embed_envelope", { clip_id: clip.id, address }) : edit("add_lane", { address })).then(
      (change) => {
        const made = change?.parts.find(([kind]) => kind === "envelope");
        const region = clip ? song().model.regions[chosenNow().regionId ?? ""] : undefined;
        if (!made) return;
        const home = region ? region.owner.slice("track/".length) : trackId;
        setView({ focus: { ...viewNow().focus, [home]: address } });
        unfold(home);
        if (region) showTime(region.start_tick, region.start_tick + region.length_ticks);
        setChoice({ envelopeId: made[1], chosen: [0], span: null, windowFrom: region?.start_tick ?? 0 });
      },
    );
  };
  const quiet = focused || acts.clip || acts.lane ? "opacity-100" : "opacity-45";
  return (
    <button
      type="button"
      className={`embed btn btn-circle btn-xs absolute -top-1 right-0 group-focus-within:opacity-100 group-hover:opacity-100 pointer-coarse:opacity-100 ${quiet}`}
      style={{ borderColor: "var(--hue)", color: "var(--hue)" }}
      title={words}
      aria-label={words}
      onClick={make}
    >
      <Plus size={13} />
    </button>
  );
}
