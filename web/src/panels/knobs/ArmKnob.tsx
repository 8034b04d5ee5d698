import { clsx } from "clsx";
import { toggleArm, usePerforming } from "../../state/performing";
import { useArming } from "../../table/ArmButton";
import { Needle } from "../../ui/Needle";

/** The mark of a knob that is armed, which arms it: seen while the pointer is near, and as long as it is armed. */
export function ArmKnob({ address, name }: { address: string; name: string }) {
  const own = usePerforming(({ armed }) => armed.knobs.includes(address));
  const state = useArming(address);
  return (
    <button
      type="button"
      className={clsx("arm-knob", state && "arm-knob-on", state === "written" && "arm-knob-written")}
      aria-pressed={own}
      aria-label={own ? `Disarm ${name}` : `Arm ${name}`}
      title={own ? `${name} is armed: what hands do with it is written while it records` : `Arm ${name} alone`}
      onClick={() => toggleArm("knobs", address)}
    >
      <Needle size={13} threaded={state === "written"} />
    </button>
  );
}
