import type { Catalogue, TrackPart } from "../api/types";
import { isClip, type Owner, ownerById, ownerInput } from "../state/catalogue";
import { chosenNow } from "../state/choice";
import { edit, editAndTell } from "../state/edits";
import { showPresets } from "../state/presets";
import { song } from "../state/song";
import type { Command } from "./command";

type Device = TrackPart["devices"][number];

const always = (): null => null;

/** Types that may stand in the place of a device of a role on a kind of track. */
export function typesFor(catalogue: Catalogue, owner: Owner, role: string): [id: string, name: string][] {
  return Object.entries(catalogue.devices)
    .filter(([, type]) => type.role === role && (type.plays === null || type.plays === owner.kind))
    .map(([id, type]) => [id, type.name]);
}

/** What can be done to a device of a chain, a track's or a clip's own. */
export function deviceCommands(chain: string, deviceId: string): Command[] {
  const { catalogue, model } = song();
  const owner = ownerById(model, chain);
  const device = owner?.devices?.find(({ id }) => id === deviceId);
  if (!catalogue || !owner || !device) return [];
  const roleOf = ({ type }: Device): string => catalogue.devices[type]?.role ?? "effect";
  const role = roleOf(device);
  const at = { ...ownerInput(owner), device_id: deviceId };
  const others = typesFor(catalogue, owner, role).filter(([type]) => type !== device.type);
  const alike = (owner.devices ?? []).filter((other) => roleOf(other) === role).map(({ id }) => id);
  return [
    {
      id: "presets",
      words: "Presets …",
      what: "Use one, or keep this",
      why: always,
      run: () => showPresets(owner, deviceId),
    },
    ...(role === "instrument" ? [] : alongChain(owner, deviceId, alike)),
    ...(role === "effect" && !isClip(owner) ? [intoClip(owner, deviceId, alike.indexOf(deviceId))] : []),
    ...others.map(
      ([type, name]): Command => ({
        id: `as-${type}`,
        words: `${name} in its place`,
        what: "What moved it waits for a knob of the same name",
        why: always,
        run: () => editAndTell("replace_device", { ...at, type }),
      }),
    ),
    {
      id: "out",
      words: "Take out",
      what: "What moved it waits in its clips and lanes",
      removes: true,
      why: always,
      run: () => editAndTell("remove_device", at),
    },
  ];
}

/** A step earlier or later among the devices of its role. */
function alongChain(owner: Owner, deviceId: string, alike: string[]): Command[] {
  const ids = (owner.devices ?? []).map(({ id }) => id);
  const place = ids.indexOf(deviceId);
  const to = (before: string | null) =>
    edit("move_device", { ...ownerInput(owner), device_id: deviceId, ...(before ? { before } : {}) });
  return [
    {
      id: "earlier",
      words: "Earlier in the chain",
      what: "Before the one that stands before it",
      why: () => (alike[0] === deviceId ? "It is the first of its kind." : null),
      run: () => to(ids[place - 1]),
    },
    {
      id: "later",
      words: "Later in the chain",
      what: "After the one that stands after it",
      why: () => (alike.at(-1) === deviceId ? "It is the last of its kind." : null),
      run: () => to(ids[place + 2] ?? null),
    },
  ];
}

/** Gives the first effects of a track, up to one, to the chosen clip of it. */
function intoClip(track: TrackPart, deviceId: string, before: number): Command {
  const { regions, clips } = song().model;
  const region = regions[chosenNow().regionId ?? ""];
  const clip = region?.owner === `track/${track.id}` ? clips[region.clip_id] : undefined;
  const fits = clip && clip.kind !== "carrier";
  return {
    id: "into-clip",
    words: fits ? `Make it an effect of ${clip.name}` : "Make it an effect of a clip",
    what: before > 0 ? "With the effects before it; heard only while the clip sounds" : "Heard only while it sounds",
    why: () => (fits ? null : "Choose a region of this track first."),
    run: () => fits && editAndTell("chain_to_clip", { track_id: track.id, device_id: deviceId, clip_id: clip.id }),
  };
}
