import { reveal } from "../table/scrolling";
import { chooseRegions, setSong, setView, song } from "./store";

/** Leads to an envelope: its track unfolded with the parameter in focus, its region chosen and in view. */
export function leadTo(envelopeId: string, regionId: string | null): void {
  const { model, view } = song();
  const envelope = model.envelopes[envelopeId];
  if (!envelope) return;
  const region = regionId ? model.regions[regionId] : undefined;
  const trackId = (region?.owner ?? envelope.owner).replace("track/", "");
  setView({ trackId, focus: { ...view.focus, [trackId]: envelope.target }, unfolded: view.unfolded.includes(trackId) ? view.unfolded : [...view.unfolded, trackId] });
  chooseRegions(region ? [region.id] : []);
  setSong({ envelopeId, chosen: [], span: null, windowFrom: region?.start_tick ?? 0 });
  reveal(trackId);
  if (region) bringIntoView(region.start_tick, region.start_tick + region.length_ticks);
}

/** Scrolls sideways until a stretch of the song is in view. */
function bringIntoView(from: number, to: number): void {
  const box = document.querySelector('[data-testid="table"]');
  if (!box) return;
  const { pxPerTick } = song().view;
  const room = box.clientWidth - 180;
  if (to * pxPerTick < box.scrollLeft + 20 || from * pxPerTick > box.scrollLeft + room - 20) box.scrollLeft = Math.max(0, from * pxPerTick - 30);
}
