import { ChevronLeft, ChevronRight, Save, Trash2 } from "lucide-react";
import { useEffect } from "react";
import { acting } from "../../state/acting";
import { findParameter } from "../../state/catalogue";
import { drawHeard } from "../../state/drawing";
import { EIGHT, eightNow, keepSets, setAtHand, setSets, turnPage, useSets } from "../../state/sets";
import { useSong } from "../../state/song";
import { useShown } from "../../state/useShown";
import { setView, useView } from "../../state/view";
import { IconButton } from "../../ui/IconButton";
import { Knob } from "../knobs/Knob";
import { useExactValues } from "../knobs/useExactValues";
import { ChooseDevice } from "./ChooseDevice";

/** Eight parameters of the device at hand, or of a set of one's own; the arrows turn to the next eight. */
export function SetOfEight() {
  const state = useSong();
  const { model, find } = useShown();
  const trackId = useView((view) => view.trackId);
  const focus = useView((view) => (trackId ? view.focus[trackId] : undefined));
  const { page, chosen, own } = useSets();
  const { name, addresses } = setAtHand(state, focus, trackId);
  const eight = eightNow();
  const pages = Math.max(1, Math.ceil(addresses.length / EIGHT));
  useExactValues(eight.join(","));
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked for again just when one of these changes
  useEffect(() => drawHeard(eight.filter((address) => find.targets[address])), [eight.join(","), model.envelopes]);
  const keep = () => {
    const taken = own.map((set) => set.name);
    const free = [name, ...Array.from({ length: 99 }, (_, i) => `${name} ${i + 2}`)].find(
      (one) => !taken.includes(one),
    );
    keepSets([...own, { name: free ?? name, addresses: eight }]);
    setSets({ chosen: free ?? name, page: 0 });
  };
  const remove = () => {
    keepSets(own.filter((set) => set.name !== chosen));
    setSets({ chosen: null, page: 0 });
  };
  return (
    <div className="flex min-w-0 flex-col">
      <div className="flex items-center gap-1">
        <ChooseDevice />
        <IconButton label="The eight before" off={pages < 2} onPress={() => turnPage(-1)}>
          <ChevronLeft size={15} />
        </IconButton>
        <span className="faint text-xs tabular-nums" data-testid="set-page">
          {Math.min(page, pages - 1) + 1} of {pages}
        </span>
        <IconButton label="The next eight" off={pages < 2} onPress={() => turnPage(1)}>
          <ChevronRight size={15} />
        </IconButton>
        <IconButton label="Keep these eight as a set" off={eight.length === 0} onPress={keep}>
          <Save size={14} />
        </IconButton>
        {chosen && (
          <IconButton label={`Forget the set ${chosen}`} onPress={remove}>
            <Trash2 size={14} />
          </IconButton>
        )}
      </div>
      <div className="fade-x flex gap-0 overflow-x-auto pt-2 pb-1">
        {eight.map((address) => {
          const placed = state.catalogue && findParameter(state.catalogue, model, address);
          if (!placed) return null;
          return (
            <div key={address} onPointerDown={() => setView({ trackId })}>
              <Knob owner={placed.owner} placed={placed} acts={acting(find, address)} focused={focus === address} />
            </div>
          );
        })}
        {eight.length === 0 && <p className="faint p-2 text-sm">Choose a track that has devices: press its name.</p>}
      </div>
    </div>
  );
}
