import { useEffect } from "react";
import { heightAt } from "../draw/corners";
import { edit, step } from "../song/actions";
import { setSong, song } from "../song/store";
import { player } from "../sound/player";
import { copy, paste } from "./regions";

const typing = (target: EventTarget | null) => target instanceof HTMLElement && (target.matches("input, select, textarea") || target.isContentEditable);

/** Keys that work anywhere in a song. */
function onKey(event: KeyboardEvent): void {
  if (typing(event.target)) return;
  const held = event.ctrlKey || event.metaKey;
  const key = event.key.toLowerCase();
  const selected = song().regionId ? song().model.regions[song().regionId as string] : undefined;
  if (key === " " && !held && !(event.target instanceof HTMLButtonElement)) player.toggle();
  else if (held && key === "z") void step(event.shiftKey ? "redo" : "undo");
  else if (held && key === "y") void step("redo");
  else if (held && key === "c" && selected) copy(selected);
  else if (held && key === "v") paste();
  else if (key === "home" && !held) player.seek(0);
  else if (key === "p" && !held) addAtPlayhead();
  else if (key === "escape") setSong({ pointIndex: null, sheet: null });
  else return;
  event.preventDefault();
}

/** Puts a point of the envelope at hand where the playhead stands, on the line. */
function addAtPlayhead(): void {
  const { envelopeId, model, windows, curves, playhead } = song();
  const envelope = envelopeId ? model.envelopes[envelopeId] : undefined;
  if (!envelope) return;
  const all = envelope.owner.startsWith("track/") ? [[0, Number.MAX_SAFE_INTEGER, 0, 1]] : Object.values(windows).flatMap((entry) => entry[envelope.id] ?? []);
  const window = all.find(([from, to]) => playhead >= from && playhead < to);
  if (!window) return;
  const tick = Math.round(window[2] + (playhead - window[0]) * window[3]);
  const value = heightAt(curves[envelope.id] ?? [], tick) ?? 0;
  void edit("add_point", { envelope_id: envelope.id, tick, value });
}

export function useKeys(): void {
  useEffect(() => {
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
