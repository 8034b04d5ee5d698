import type { Catalogue } from "../api/types";
import { findParameter, parametersOf } from "./catalogue";
import { edit, editAndTell } from "./edits";
import { lookup } from "./lookup";
import type { Model } from "./model";
import { setNotice, tell } from "./notice";
import { song } from "./song";
import { isDriving, NOBODY, whoDrives as now, useDriving } from "./whoDrives";

export function endDriving(): void {
  useDriving.setState(NOBODY);
  setNotice({ notice: null });
}

/** What is touched from now on is driven by a macro, until it is told off. */
export function driveBy(macro: string): void {
  useDriving.setState({ macro, envelopeId: null });
  tell("done", `Touch the knobs that ${nameOf(macro)} is to drive. Drive again, or Escape, ends it.`);
}

/** The knob touched next is moved by what an envelope moves: a macro is made of it. */
export function driveFrom(envelopeId: string): void {
  useDriving.setState({ macro: null, envelopeId });
  tell("done", "Touch the knob that it is to move too. Escape ends it.");
}

const nameOf = (address: string): string => {
  const { catalogue, model } = song();
  return (catalogue && findParameter(catalogue, model, address)?.entry.name) ?? address;
};

/** Lets what is in hand drive a parameter. */
export async function driveIt(target: string): Promise<void> {
  const { macro, envelopeId } = now();
  if (envelopeId) {
    endDriving();
    await editAndTell("drive_from", { envelope_id: envelopeId, target });
    return;
  }
  if (macro) await driveOne(macro, target);
}

/** Every knob of every macro strip, in words. */
export function macrosOf(catalogue: Catalogue, model: Model): { address: string; words: string }[] {
  return model.tracks.flatMap((track) =>
    parametersOf(catalogue, model.tracks, track)
      .filter(
        (device) => catalogue.devices[track.devices.find(({ id }) => id === device.id)?.type ?? ""]?.role === "macros",
      )
      .flatMap(({ list }) => list.map(({ address, entry }) => ({ address, words: `${entry.name} of ${track.name}` }))),
  );
}

/** Lets a macro drive a parameter; where another does already, it is asked first. */
export async function driveOne(macro: string, target: string): Promise<void> {
  if (target === macro) return;
  const other = lookup(song().model).drivers[target];
  if (other?.macro === macro) return tell("done", `${nameOf(macro)} drives ${nameOf(target)} already.`);
  const more = isDriving() ? ". Touch another, or press Escape." : "";
  const go = async (replace: boolean) => {
    const change = await edit("set_drive", { macro, target, replace });
    if (change) tell("done", `Done: ${change.words}${more}`, true);
  };
  if (!other) return go(false);
  const words = `${other.name} drives ${nameOf(target)} already. Let ${nameOf(macro)} drive it?`;
  setNotice({ notice: { tone: "done", words, go: () => void go(true) } });
}
