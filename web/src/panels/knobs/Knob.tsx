import { Hand } from "lucide-react";
import { memo } from "react";
import { hueStyle, parameterHue } from "../../geometry/hue";
import type { Acting } from "../../state/acting";
import { heldIn, knobValue, type Owner, type Placed } from "../../state/catalogue";
import { edit } from "../../state/edits";
import { useArming } from "../../table/ArmButton";
import { ArmKnob } from "./ArmKnob";
import { EmbedButton } from "./EmbedButton";
import { KnobFace } from "./KnobFace";
import { stateWord, stateWords } from "./stateWords";
import { useTurning } from "./useTurning";

interface Props {
  owner: Owner;
  placed: Placed;
  acts: Acting;
  focused: boolean;
  /** Whether it stands among what moves, where marks tell what moves it. */
  moving?: boolean;
}

/** Compares what a knob shows: changes elsewhere in its chain do not draw it again. */
function alike(a: Props, b: Props): boolean {
  const [one, other] = [a.placed, b.placed];
  const same = one.address === other.address && one.scale === other.scale && one.entry.name === other.entry.name;
  return (
    same &&
    a.focused === b.focused &&
    a.owner.id === b.owner.id &&
    a.acts.clip === b.acts.clip &&
    a.acts.lane === b.acts.lane &&
    a.acts.macro === b.acts.macro &&
    knobValue(a.owner, one) === knobValue(b.owner, other) &&
    heldIn(a.owner, one) === heldIn(b.owner, other)
  );
}

/** One parameter as a knob, or as a switch where it has two places. It shows what is heard at the playhead. */
export const Knob = memo(function Knob({ owner, placed, acts, focused, moving = false }: Props) {
  const { address, entry, scale } = placed;
  const { value, rest, text, held, automated, press, onKey, type, menu, shower } = useTurning(owner, placed, acts);
  const arming = useArming(address);
  const words = stateWord(arming, held, acts);
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the menu key on the slider in it opens the menu too
    <div
      className="group knob-box"
      style={hueStyle(parameterHue(address))}
      data-testid={`${moving ? "moving" : "knob"}-${address}`}
      onContextMenu={menu}
    >
      <div
        ref={shower}
        role="slider"
        tabIndex={0}
        aria-label={`${entry.name}${stateWords(arming, held, acts)}`}
        aria-valuemin={0}
        aria-valuemax={1}
        aria-valuenow={Number(value.toFixed(4))}
        aria-valuetext={text}
        title={
          entry.automatable
            ? `${entry.name}: drag up or down; a double press types a value, Delete brings the default back`
            : `${entry.name} cannot be automated: ${entry.reason}`
        }
        className={`touch-pan-x cursor-ns-resize rounded-full ${focused ? "bg-base-300" : ""}`}
        onPointerDown={press}
        onDoubleClick={type}
        data-shows={address}
        onKeyDown={onKey}
      >
        <KnobFace
          address={address}
          value={value}
          rest={rest}
          origin={scale.origin}
          acts={acts}
          automated={automated}
          held={held}
          arming={arming}
          large={moving}
        />
      </div>
      <span className="max-w-full truncate text-xs leading-4 first-letter:uppercase">
        {entry.name.replace(/^.*: /, "")}
      </span>
      <span
        className={`text-xs leading-4 whitespace-nowrap ${automated ? "hue font-semibold" : "faint"}`}
        data-testid={moving ? undefined : `value-${address}`}
      >
        {text}
      </span>
      {!moving && <span className="hue h-3.5 max-w-full truncate text-xs leading-3">{words}</span>}
      {held && (
        <button
          type="button"
          className="embed btn btn-circle btn-xs absolute -top-1 left-0"
          style={{ borderColor: "var(--hue)", color: "var(--hue)" }}
          title={`Hand ${entry.name} back to what moves it`}
          aria-label={`Hand ${entry.name} back`}
          onClick={() => void edit("hand_back", { addresses: [address] })}
        >
          <Hand size={12} />
        </button>
      )}
      {entry.automatable && <ArmKnob address={address} name={entry.name} />}
      <EmbedButton placed={placed} acts={acts} focused={focused} />
    </div>
  );
}, alike);
