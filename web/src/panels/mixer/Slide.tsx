import { clsx } from "clsx";
import { Hand } from "lucide-react";
import { useEffect, useRef } from "react";
import type { Normalised, Px } from "../../api/types";
import { hueStyle, parameterHue } from "../../geometry/hue";
import type { Acting } from "../../state/acting";
import type { Owner, Placed } from "../../state/catalogue";
import { edit } from "../../state/edits";
import { focusOnKnob } from "../../state/focus";
import { heardNow } from "../../state/heardNow";
import { useTransport } from "../../state/transport";
import { useArming } from "../../table/ArmButton";
import { EmbedButton } from "../knobs/EmbedButton";
import { stateWords } from "../knobs/stateWords";
import { type Axis, useTurning } from "../knobs/useTurning";

interface Props {
  owner: Owner;
  placed: Placed;
  acts: Acting;
  axis: Axis;
  /** How far the handle goes. */
  travel: Px;
  /** What it is called here. */
  name: string;
}

/** A parameter as a slide: a fader, or a short way across for pan and sends. It moves as heard while it plays. */
export function Slide({ owner, placed, acts, axis, travel, name }: Props) {
  const { address, entry, scale } = placed;
  const { value, rest, text, held, automated, press, onKey, toDefault } = useTurning(owner, placed, acts, axis, travel);
  const carriage = useRef<HTMLDivElement>(null);
  const far = axis === "up" ? "bottom" : "left";
  useEffect(() => {
    if (!automated) return;
    return useTransport.subscribe(({ playing }) => {
      const now = playing ? heardNow(address) : null;
      if (now !== null && carriage.current) carriage.current.style.transform = moved(axis, now);
    });
  }, [address, automated, axis]);
  const arming = useArming(address);
  return (
    <div
      className={`slide slide-${axis} group`}
      style={hueStyle(parameterHue(address))}
      data-testid={`slide-${address}`}
    >
      <div
        role="slider"
        tabIndex={0}
        className="slide-way"
        aria-label={`${name} of ${owner.name}${stateWords(arming, held, acts)}`}
        aria-orientation={axis === "up" ? "vertical" : "horizontal"}
        aria-valuemin={0}
        aria-valuemax={1}
        aria-valuenow={Number(value.toFixed(4))}
        aria-valuetext={text}
        title={`${name}: ${text}; a double press brings the default back`}
        onPointerDown={press}
        onDoubleClick={toDefault}
        onKeyDown={onKey}
        onFocus={() => focusOnKnob(address)}
      >
        <i className="slide-rest" style={{ [far]: `${rest * 100}%` }} />
        {scale.origin > 0 && <i className="slide-origin" style={{ [far]: `${scale.origin * 100}%` }} />}
        <div
          ref={carriage}
          className={`slide-carriage ${automated ? "will-change-transform" : ""}`}
          style={{ transform: moved(axis, value) }}
        >
          <b
            className={clsx(
              "slide-handle",
              automated && "slide-moved",
              held && "slide-held",
              arming === "armed" && "slide-armed",
              arming === "written" && "slide-written",
            )}
          />
        </div>
      </div>
      <span className={`slide-text ${automated ? "hue font-semibold" : "faint"}`}>
        {axis === "across" && <span className="faint truncate font-normal">{name}</span>}
        <span className="shrink-0">{text}</span>
      </span>
      <span className="slide-acts hue" aria-hidden="true">
        {acts.clip && <i className={`stitch-mark ${acts.clip === "off" ? "off-line" : ""}`} />}
        {acts.lane && <i className={`line-mark ${acts.lane === "off" ? "off-line" : ""}`} />}
      </span>
      {held && (
        <button
          type="button"
          className="slide-back"
          title={`Hand ${entry.name} back to what moves it`}
          aria-label={`Hand ${name} of ${owner.name} back`}
          onClick={() => void edit("hand_back", { addresses: [address] })}
        >
          <Hand size={12} />
        </button>
      )}
      <EmbedButton placed={placed} acts={acts} focused={false} />
    </div>
  );
}

/** Moved by its own size rather than laid out again: so a frame costs next to nothing. */
const moved = (axis: Axis, value: Normalised): string =>
  axis === "up" ? `translateY(${-value * 100}%)` : `translateX(${value * 100}%)`;
