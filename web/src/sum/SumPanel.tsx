import { Circle, Ear, Minus, MoreHorizontal, Scissors } from "lucide-react";
import { type ReactNode, useEffect, useState } from "react";
import { Refused, songApi } from "../api/client";
import type { Explanation, Step } from "../api/types";
import { hueStyle, parameterHue } from "../draw/hue";
import { setSong, song, useSong } from "../song/store";
import { EnvelopePanel } from "./EnvelopePanel";

const MARKS: Record<string, ReactNode> = {
  knob: <Circle size={16} />,
  lane: <Minus size={16} />,
  clip: <MoreHorizontal size={16} />,
  carrier: <MoreHorizontal size={16} />,
  limits: <Scissors size={16} />,
  heard: <Ear size={16} />,
};

/** While the playhead runs, a new answer is asked for this often. */
const ASK_EVERY_MS = 220;

function useExplanation(address: string | null): { found: Explanation | null; fault: string | null } {
  const [state, setState] = useState<{ found: Explanation | null; fault: string | null }>({ found: null, fault: null });
  const revision = useSong((s) => s.revision);
  const still = useSong((s) => (s.playing ? -1 : s.playhead));
  const playing = useSong((s) => s.playing);
  const songId = useSong((s) => s.songId);
  useEffect(() => {
    if (!address || songId === null) return;
    let over = false;
    let busy = false;
    const ask = async () => {
      if (busy) return;
      busy = true;
      try {
        const found = await songApi(songId).explanation(address, song().playhead);
        if (!over) setState({ found, fault: null });
      } catch (error) {
        if (!over) setState({ found: null, fault: error instanceof Refused ? error.message : "No answer." });
      }
      busy = false;
    };
    void ask();
    const timer = playing ? setInterval(ask, ASK_EVERY_MS) : undefined;
    return () => {
      over = true;
      clearInterval(timer);
    };
  }, [address, songId, revision, still, playing]);
  return state;
}

/** Why the parameter in focus has its value at the playhead, step by step; and the envelope at hand. */
export function SumPanel({ address }: { address: string | null }) {
  const { found, fault } = useExplanation(address);
  if (!address) return <p className="faint p-4">Touch a knob to see where its value comes from.</p>;
  if (fault) return <p className="p-4 text-error">{fault}</p>;
  if (!found) return <progress className="progress m-4 w-40" aria-label="Asking why" />;
  return (
    <div className="flex flex-col gap-2 p-3" style={hueStyle(parameterHue(address))} data-testid="sum">
      <div>
        <p className="faint text-[12px]">{found.name}, heard at {found.position}</p>
        <p className="text-2xl leading-8 font-bold" data-testid="sum-heard">{found.text}</p>
      </div>
      <ol className="flex flex-col gap-1.5">
        {found.steps.map((step, i) => (
          <StepCard key={i} step={step} />
        ))}
      </ol>
      <EnvelopePanel address={address} />
    </div>
  );
}

function StepCard({ step }: { step: Step }) {
  const words = [step.kind, step.name].filter(Boolean).join(" ");
  const lead = step.envelope_id ? () => setSong({ envelopeId: step.envelope_id, chosen: [], span: null, ...(step.region_id ? { regionId: step.region_id } : { regionId: null }) }) : undefined;
  const Tag = lead ? "button" : "div";
  return (
    <li className={step.overruled ? "opacity-50" : ""}>
      <Tag
        {...(lead ? { type: "button" as const, onClick: lead, title: "Show this envelope below" } : {})}
        className={`flex w-full items-center gap-2.5 rounded-field border border-base-300 bg-base-200 px-2.5 py-1.5 text-left ${lead ? "cursor-pointer hover:border-[var(--hue)]" : ""}`}
      >
        <span className="hue shrink-0" aria-hidden="true">{MARKS[step.kind]}</span>
        <span className="min-w-0 grow">
          <span className="faint block truncate text-[11.5px]">{words}</span>
          <span className="block font-semibold">{step.does ?? step.text}{step.overruled ? ", overruled" : ""}</span>
        </span>
        {step.does && !step.overruled && step.kind !== "knob" && <span className="faint shrink-0 text-[11.5px]">{step.text}</span>}
      </Tag>
    </li>
  );
}
