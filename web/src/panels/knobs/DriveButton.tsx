import { clsx } from "clsx";
import { Split } from "lucide-react";
import { memo } from "react";
import { driveBy, driveFrom, endDriving } from "../../state/driving";
import { useDriving } from "../../state/whoDrives";

interface Props {
  address: string;
  name: string;
  /** At the rim of its knob, for a mouse; fingers have the large one in the sum. */
  small?: boolean;
}

/** Beside a macro: what is touched after a press is driven by it, until it is pressed again. */
export const DriveButton = memo(function DriveButton({ address, name, small = false }: Props) {
  const on = useDriving(({ macro }) => macro === address);
  return (
    <button
      type="button"
      className={clsx(
        "btn btn-xs font-normal",
        small ? "btn-circle absolute top-6 right-0 pointer-coarse:hidden" : "pointer-coarse:h-11",
        on && "btn-secondary",
      )}
      aria-pressed={on}
      aria-label={`Let ${name} drive what is touched next`}
      title="Drive: then touch the knobs it is to drive"
      onClick={() => (on ? endDriving() : driveBy(address))}
    >
      <Split size={12} /> {!small && "Drive"}
    </button>
  );
});

/** Lets what moves one knob move the one touched next too; a second press calls it off (fingers have no Escape). */
export function DriveFromButton({ envelopeId }: { envelopeId: string }) {
  const on = useDriving((state) => state.envelopeId === envelopeId);
  return (
    <button
      type="button"
      className={clsx("btn btn-sm mt-2 w-full font-normal pointer-coarse:h-11", on && "btn-secondary")}
      aria-pressed={on}
      title="Makes a macro of what it moves: then touch the knob that it is to drive too"
      onClick={() => (on ? endDriving() : driveFrom(envelopeId))}
    >
      <Split size={14} /> Let it move another knob too
    </button>
  );
}
