import { create } from "zustand";
import { useChoice } from "./choice";
import { useView } from "./view";

/** Which came last: points that were chosen, or a knob, a track or a value that was asked about. */
export const useLatest = create<{ points: boolean }>(() => ({ points: false }));

/** Someone asks about a value, whatever is chosen. */
export const askedForValue = (): void => useLatest.setState({ points: false });

useChoice.subscribe((now, before) => {
  const chose = now.chosen !== before.chosen || now.span !== before.span || now.envelopeId !== before.envelopeId;
  if (chose && (now.chosen.length > 0 || now.span)) useLatest.setState({ points: true });
});
useView.subscribe((now, before) => {
  if (now.focus !== before.focus || now.trackId !== before.trackId) askedForValue();
});
