import { clsx } from "clsx";
import { acting, actingWords } from "../../state/acting";
import { findParameter, heldIn } from "../../state/catalogue";
import { setPad, usePad } from "../../state/pad";
import { eightNow } from "../../state/sets";
import { useSong } from "../../state/song";
import { useShown } from "../../state/useShown";
import { useView } from "../../state/view";
import { useArming } from "../../table/ArmButton";
import { stateWords } from "../knobs/stateWords";
import { useNames } from "./useNames";

/** What the pad turns across and up, and how each of them stands. */
export function PadAxes() {
  const { x, y } = usePad();
  return (
    <>
      <AxisChoice axis="x" words="across" address={x} />
      <AxisChoice axis="y" words="up" address={y} />
    </>
  );
}

function AxisChoice({ axis, words, address }: { axis: "x" | "y"; words: string; address: string | null }) {
  const lately = useView((view) => view.lately);
  const targets = Object.keys(useShown().find.targets);
  const list = [...new Set([...(address ? [address] : []), ...eightNow(), ...lately, ...targets])];
  const names = useNames(list);
  return (
    <label className="pad-axis">
      <span className="faint">pad {words}</span>
      <select
        className="select select-xs w-full pointer-coarse:h-11"
        aria-label={`What the pad turns ${words}`}
        value={address ?? ""}
        onChange={(event) => setPad({ [axis]: event.target.value || null })}
      >
        <option value="">nothing</option>
        {list.map(
          (one) =>
            names[one] && (
              <option key={one} value={one}>
                {names[one]}
              </option>
            ),
        )}
      </select>
      {address && <AxisState address={address} />}
    </label>
  );
}

/** How what an axis turns stands: moved, held, off, armed, being written. */
function AxisState({ address }: { address: string }) {
  const { model, find } = useShown();
  const catalogue = useSong((state) => state.catalogue);
  const arming = useArming(address);
  const acts = acting(find, address);
  const found = catalogue && findParameter(catalogue, model, address);
  const words = stateWords(arming, found ? heldIn(found.owner, found) : false, acts).replace(/^, /, "");
  const off = !words && actingWords(acts) ? "off" : "";
  return <span className={clsx("text-xs", arming === "written" && "text-error")}>{words || off}</span>;
}
