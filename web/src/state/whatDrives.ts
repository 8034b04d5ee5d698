import type { Catalogue, EnvelopePart } from "../api/types";
import { findParameter } from "./catalogue";
import type { Lookup } from "./lookup";
import type { Model } from "./model";

/** One thing that drives another. */
export interface Driving {
  id: string;
  kind: "clip" | "lane" | "carrier" | "macro" | "controller";
  driver: string;
  driven: string;
  /** Of what drives: the envelope, or the macro; null for a controller. */
  envelopeId: string | null;
  macro: string | null;
  target: string;
}

/** A control of a controller that turns a parameter, in words. */
export interface Control {
  words: string;
  address: string;
}

export type Side = "driver" | "driven";

/** All that drives something in a song, whether it sounds or not. */
export function drivingsOf(catalogue: Catalogue, model: Model, find: Lookup, controls: Control[]): Driving[] {
  const named = (address: string): string => {
    const found = findParameter(catalogue, model, address);
    return found ? `${found.entry.name} of ${found.owner.name}` : `${address} (missing)`;
  };
  const moves = Object.values(model.envelopes).map((envelope) => fromEnvelope(model, envelope, named));
  const macros = Object.entries(find.drivers).map(
    ([target, { macro }]): Driving => ({
      id: `macro ${target}`,
      kind: "macro",
      driver: named(macro),
      driven: named(target),
      envelopeId: null,
      macro,
      target,
    }),
  );
  const controllers = controls.map(
    ({ words, address }, i): Driving => ({
      id: `controller ${i}`,
      kind: "controller",
      driver: words,
      driven: named(address),
      envelopeId: null,
      macro: null,
      target: address,
    }),
  );
  return [...moves, ...macros, ...controllers];
}

function fromEnvelope(model: Model, envelope: EnvelopePart, named: (address: string) => string): Driving {
  const [place, id] = envelope.owner.split("/");
  const clip = place === "clip" ? model.clips[id] : undefined;
  const kind = clip ? (clip.kind === "carrier" ? "carrier" : "clip") : "lane";
  const source = envelope.source ? `LFO, ${envelope.source.wave}` : "drawn";
  const home = clip?.name ?? model.tracks.find((track) => track.id === id)?.name ?? "";
  return {
    id: envelope.id,
    kind,
    driver: `${home}: ${source}, ${envelope.role}s${envelope.on ? "" : " (off)"}`,
    driven: named(envelope.target),
    envelopeId: envelope.id,
    macro: null,
    target: envelope.target,
  };
}

/** By what drives, or by what is driven; those alike by the other. */
export function sortedBy(list: Driving[], side: Side): Driving[] {
  const other: Side = side === "driver" ? "driven" : "driver";
  return [...list].sort((a, b) => a[side].localeCompare(b[side]) || a[other].localeCompare(b[other]));
}
