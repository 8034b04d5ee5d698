import { Plug } from "lucide-react";
import { useEffect, useState } from "react";
import { readInputs } from "../../gestures/inputs";
import { openMappings } from "../../state/mappings";
import { useNarrow } from "../../ui/useNarrow";
import { PadAxes } from "./PadAxes";
import { SetOfEight } from "./SetOfEight";
import { SimulatedController } from "./SimulatedController";
import { AddPhoneButton } from "./SurfaceBox";
import { XYPad } from "./XYPad";

/** Eight parameters and a pad under the hand, and what controllers turn. */
export function HandsPanel() {
  const [simulated, setSimulated] = useState(false);
  const narrow = useNarrow();
  useEffect(() => void readInputs(), []);
  return (
    <div className={narrow ? "hands hands-narrow" : "hands"} role="group" aria-label="Hands">
      <div className="hands-ways">
        <button type="button" className="btn btn-sm pointer-coarse:h-11" onClick={openMappings}>
          <Plug size={14} aria-hidden="true" /> Controllers
        </button>
        <AddPhoneButton />
        <button
          type="button"
          className={`btn btn-sm pointer-coarse:h-11 ${simulated ? "btn-secondary" : "btn-ghost"}`}
          aria-pressed={simulated}
          title="A controller without a body: it sends what a real one would"
          onClick={() => setSimulated(!simulated)}
        >
          Simulated
        </button>
        {!simulated && <PadAxes />}
      </div>
      {simulated ? <SimulatedController /> : <SetOfEight />}
      {!simulated && <XYPad />}
    </div>
  );
}
