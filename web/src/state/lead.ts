import { chooseRegions, setChoice } from "./choice";
import { takeLayer } from "./layers";
import { reveal, showTime } from "./scrolling";
import { song } from "./song";
import { setView, viewNow } from "./view";

/** Leads to an envelope: its track unfolded with the parameter in focus, its region chosen and in view. */
export function leadTo(envelopeId: string, regionId: string | null): void {
  const { model } = song();
  const { focus, unfolded } = viewNow();
  const envelope = model.envelopes[envelopeId];
  if (!envelope) return;
  const region = regionId ? model.regions[regionId] : undefined;
  const trackId = (region?.owner ?? envelope.owner).replace("track/", "");
  setView({
    trackId,
    focus: { ...focus, [trackId]: envelope.target },
    unfolded: unfolded.includes(trackId) ? unfolded : [...unfolded, trackId],
  });
  takeLayer(trackId, region ? "clip" : "lane", envelope.role);
  chooseRegions(region ? [region.id] : []);
  setChoice({ envelopeId, chosen: [], span: null, windowFrom: region?.start_tick ?? 0 });
  reveal(trackId);
  if (region) showTime(region.start_tick, region.start_tick + region.length_ticks);
}
