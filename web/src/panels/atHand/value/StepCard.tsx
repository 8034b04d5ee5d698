import { clsx } from "clsx";
import { Circle, Ear, Hand, Minus, MoreHorizontal, Scissors, Split } from "lucide-react";
import type { ReactNode } from "react";
import type { Step } from "../../../api/types";
import { focusOn } from "../../../state/focus";
import { leadTo } from "../../../state/lead";

const MARKS: Record<string, ReactNode> = {
  knob: <Circle size={16} />,
  held: <Hand size={16} />,
  macro: <Split size={16} />,
  lane: <Minus size={16} />,
  clip: <MoreHorizontal size={16} />,
  carrier: <MoreHorizontal size={16} />,
  limits: <Scissors size={16} />,
  heard: <Ear size={16} />,
};

/** One step on the way to a value; a press leads to the envelope that makes it. */
export function StepCard({ step }: { step: Step }) {
  const words = [step.kind, step.name].filter(Boolean).join(" ");
  const envelopeId = step.envelope_id;
  const lead = envelopeId ? () => leadTo(envelopeId, step.region_id) : undefined;
  const Tag = lead ? "button" : "div";
  return (
    <li className={step.overruled || step.waits ? "opacity-50" : ""}>
      <Tag
        {...(lead ? { type: "button" as const, onClick: lead, title: "Go to this envelope" } : {})}
        className={clsx("step", lead && "step-leads")}
      >
        <span className="hue shrink-0" aria-hidden="true">
          {MARKS[step.kind]}
        </span>
        <span className="min-w-0 grow">
          <span className="faint block truncate text-xs">{words}</span>
          <span className="block font-semibold">
            {step.does ?? step.text}
            {step.overruled ? ", overruled" : ""}
            {step.waits ? ", waits" : ""}
          </span>
        </span>
        {step.does && !step.overruled && !step.waits && step.kind !== "knob" && (
          <span className="faint shrink-0 text-xs">{step.text}</span>
        )}
      </Tag>
      {step.inputs.length > 0 && (
        <p className="flex flex-wrap gap-1 pt-1 pl-7" role="group" aria-label="Made with">
          {step.inputs.map(({ name, text, by, address }) => (
            <button
              key={name}
              type="button"
              className="btn btn-xs font-normal pointer-coarse:h-10"
              title={by ? `Moved by a ${by}: why it is so` : "Why it is so"}
              onClick={() => focusOn(address)}
            >
              {name} {text}
              {by && <b className="hue">{by}</b>}
            </button>
          ))}
        </p>
      )}
    </li>
  );
}
