import { Eye } from "lucide-react";
import type { EnvelopePart } from "../../../api/types";
import { acting } from "../../../state/acting";
import { findParameter, settingNames, settingOf } from "../../../state/catalogue";
import { focusOn } from "../../../state/focus";
import { useSong } from "../../../state/song";
import { useShown } from "../../../state/useShown";
import { Knob } from "../../knobs/Knob";
import { useExactValues } from "../../knobs/useExactValues";

/**
 * What can be moved of a move itself, as knobs like any others: each shows what is heard of it, with its + beside. What
 * is drawn for one is brought into sight from here.
 */
export function SettingKnobs({ envelope }: { envelope: EnvelopePart }) {
  const catalogue = useSong((state) => state.catalogue);
  const { model, find } = useShown();
  const names = settingNames(envelope);
  useExactValues(names.map((name) => settingOf(envelope.id, name)).join(","));
  if (!catalogue) return null;
  const moved = names.filter((name) => find.targets[settingOf(envelope.id, name)]);
  return (
    <div className="mt-2" role="group" aria-label="Settings of the move">
      <div className="flex flex-wrap gap-y-2">
        {names.map((name) => {
          const address = settingOf(envelope.id, name);
          const placed = findParameter(catalogue, model, address);
          if (!placed) return null;
          return <Knob key={name} owner={placed.owner} placed={placed} acts={acting(find, address)} focused={false} />;
        })}
      </div>
      {moved.length > 0 && (
        <div className="mt-1 flex flex-wrap gap-1">
          {moved.map((name) => (
            <button
              key={name}
              type="button"
              className="btn btn-xs font-normal pointer-coarse:h-10"
              title={`Bring what moves the ${name} into sight`}
              onClick={() => focusOn(settingOf(envelope.id, name))}
            >
              <Eye size={12} /> {name}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}
