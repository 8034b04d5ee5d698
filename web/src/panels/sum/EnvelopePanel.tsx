import { Backpack, Layers, Power, Trash2 } from "lucide-react";
import { useState } from "react";
import type { EditInputs } from "../../api/types";
import { freeRoles, layerDeeds } from "../../gestures/embedding";
import { findParameter } from "../../state/catalogue";
import { setChoice, useChoice } from "../../state/choice";
import { edit, editAsking } from "../../state/edits";
import { ROLES } from "../../state/layers";
import { leadTo } from "../../state/lead";
import { lookup } from "../../state/lookup";
import { tell } from "../../state/notice";
import { showKeeping } from "../../state/satchel";
import { useSong } from "../../state/song";
import { setView } from "../../state/view";
import { Fold } from "../../ui/Fold";
import { DeedMenu } from "../../ui/Menu";
import { DriveFromButton } from "../knobs/DriveButton";
import { FaderChoice } from "../track/FaderChoice";
import { ClockChoice } from "./ClockChoice";
import { SourceChoice } from "./SourceChoice";
import { Vary } from "./Vary";

const ROLE_WORDS = { set: "replaces the value", shift: "adds to the value", scale: "multiplies the value" };

type Keep = NonNullable<EditInputs["set_role"]["keep"]>;

/** The envelope at hand: what it does, how its time runs, on or off; and the point that is selected. */
export function EnvelopePanel({ address }: { address: string }) {
  const model = useSong((state) => state.model);
  const catalogue = useSong((state) => state.catalogue);
  const envelopeId = useChoice((state) => state.envelopeId);
  const regionId = useChoice((state) => state.regionId);
  const [keep, setKeep] = useState<Keep>("heard");
  const placed = catalogue && findParameter(catalogue, model, address);
  const all = Object.values(model.envelopes).filter((entry) => entry.target === address);
  const clip = regionId ? model.regions[regionId]?.clip_id : null;
  const envelope =
    all.find((entry) => entry.id === envelopeId) ?? all.find((entry) => entry.owner === `clip/${clip}`) ?? all[0];
  const driven = lookup(model).drivers[address] !== undefined;
  if (!envelope || !placed)
    return (
      <p className="faint text-xs">
        {driven ? "No envelope moves it; a macro does." : "Nothing moves it yet."} The + on its knob embeds an envelope
        in the selected clip, or adds a lane.
      </p>
    );
  const free = freeRoles(address, envelope.owner);
  const layers = all.filter((entry) => entry.owner === envelope.owner);
  const home = envelope.owner.startsWith("clip/") ? model.clips[envelope.owner.slice("clip/".length)] : null;
  const owner = envelope.owner.startsWith("clip/")
    ? `in ${model.clips[envelope.owner.slice(5)]?.name}`
    : `lane of ${placed.owner.name}`;
  return (
    <section className="rounded-box border border-base-300 p-2.5" aria-label="Envelope">
      <header className="flex items-center gap-1">
        <h3 className="min-w-0 grow truncate font-bold">
          {placed.entry.name} {owner}
        </h3>
        {free.length > 0 && !placed.scale.set_only && (
          <DeedMenu
            label="Add another envelope for it here"
            title="Another envelope for it here, in another role"
            look="btn btn-ghost btn-xs btn-square"
            head={`Another envelope for ${placed.entry.name} ${owner}`}
            deeds={layerDeeds(address, home, free)}
          >
            <Layers size={14} />
          </DeedMenu>
        )}
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square"
          aria-label="Keep this move in the satchel"
          title="Keep it in the satchel"
          onClick={() => {
            setChoice({ envelopeId: envelope.id, chosen: [], span: null });
            showKeeping();
          }}
        >
          <Backpack size={14} />
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square"
          aria-pressed={!envelope.on}
          aria-label={envelope.on ? "Switch this envelope off" : "Switch this envelope on"}
          title={envelope.on ? "Switch off" : "Switch on"}
          onClick={() => void edit("switch_envelope", { envelope_id: envelope.id, on: !envelope.on })}
        >
          <Power size={14} className={envelope.on ? "hue" : "faint"} />
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square"
          aria-label="Remove this envelope"
          title="Remove"
          onClick={() =>
            void edit("remove_envelope", { envelope_id: envelope.id }).then(
              (change) => change && tell("done", `Done: ${change.words}`, true),
            )
          }
        >
          <Trash2 size={14} />
        </button>
      </header>
      {layers.length > 1 && (
        <div className="mt-2 flex flex-wrap items-center gap-1" role="group" aria-label="Layers">
          <span className="faint text-xs">Layers</span>
          {ROLES.flatMap((role) => layers.filter((layer) => layer.role === role)).map((layer) => (
            <button
              key={layer.id}
              type="button"
              className={`layer ${layer.id === envelope.id ? "layer-on" : ""} ${layer.on ? "" : "opacity-60"}`}
              aria-pressed={layer.id === envelope.id}
              onClick={() => leadTo(layer.id, home ? regionId : null)}
            >
              {layer.role}
              {layer.on ? "" : " (off)"}
            </button>
          ))}
        </div>
      )}
      <div className="join mt-2 w-full" role="group" aria-label="What it does">
        {ROLES.map((role) => (
          <button
            key={role}
            type="button"
            disabled={(placed.scale.set_only && role !== "set") || (role !== envelope.role && !free.includes(role))}
            className={`btn join-item btn-xs grow ${envelope.role === role ? "btn-secondary" : ""}`}
            aria-pressed={envelope.role === role}
            title={
              role !== envelope.role && !free.includes(role)
                ? `Another envelope ${role}s it here already`
                : ROLE_WORDS[role]
            }
            onClick={() =>
              envelope.role !== role && void editAsking("set_role", { envelope_id: envelope.id, role, keep })
            }
          >
            {role}
          </button>
        ))}
      </div>
      {!placed.scale.set_only && (
        <label className="faint mt-1 flex items-center gap-1 text-xs">
          <span className="shrink-0">a change keeps</span>
          <select
            className="select select-xs min-w-0 grow pointer-coarse:h-11"
            aria-label="What a change of role keeps"
            value={keep}
            onChange={(event) => setKeep(event.target.value as Keep)}
          >
            <option value="heard">what is heard</option>
            <option value="drawing">the drawing</option>
          </select>
        </label>
      )}
      <p className="faint mt-1 text-xs">{envelope.on ? ROLE_WORDS[envelope.role] : "is off"}</p>
      {envelope.owner.startsWith("track/") && (
        <div className="mt-1 flex">
          <FaderChoice lane={envelope} placed={placed} />
        </div>
      )}
      {envelope.owner.startsWith("clip/") && <ClockChoice envelope={envelope} />}
      <SourceChoice envelope={envelope} />
      {home && (
        <Fold id="vary" words="Vary from loop to loop">
          <Vary envelope={envelope} />
        </Fold>
      )}
      {envelope.role === "set" && placed.rests === undefined && !("length_ticks" in placed.owner) && (
        <DriveFromButton envelopeId={envelope.id} />
      )}
      <p className="faint mt-2 text-xs" hidden={envelope.source !== undefined}>
        Press the line to add a point, double-press a point to remove it, drag the diamonds to bend. With Ctrl, a press
        on the line takes the whole segment.{" "}
        <button
          type="button"
          className="underline"
          onClick={() => {
            setChoice({ envelopeId: envelope.id });
            setView({ sheet: "edit" });
          }}
        >
          More
        </button>
      </p>
    </section>
  );
}
