import { clsx } from "clsx";
import { useHand } from "../state/hand";
import { useSong } from "../state/song";

/** Beside a hand that carries regions: what a drop here does, what goes along, what is cut; or why it cannot be. */
export function Carry() {
  const carry = useHand((state) => state.carry);
  const tried = useSong((state) => state.preview?.words);
  const notices = useSong((state) => state.preview?.notices);
  const words = carry?.words ?? tried;
  if (!carry || !(words || carry.fault)) return null;
  const left = Math.min(carry.x + 14, window.innerWidth - 280);
  return (
    <div
      role="status"
      className={clsx("carry", carry.fault ? "bg-error text-error-content" : "bg-neutral text-neutral-content")}
      style={{ left: Math.max(4, left), top: carry.y + 20 }}
      data-testid="carry"
    >
      <p className="font-semibold">{carry.fault ?? words}</p>
      {!carry.fault && notices?.map(({ text }) => <p key={text}>{text}</p>)}
    </div>
  );
}

/** The loop being drawn about regions. */
export function Loop() {
  const loop = useHand((state) => state.loop);
  return (
    loop && (
      <div
        className="pointer-events-none fixed z-40 rounded border border-dashed border-base-content bg-base-content/10"
        style={loop}
        data-testid="loop"
      />
    )
  );
}
