import { useEffect, useState } from "react";
import type { Catalogue, EditInputs, EnvelopePart } from "../../../api/types";
import { edit, editAndTell } from "../../../state/edits";
import { lookup } from "../../../state/lookup";
import type { Model } from "../../../state/model";
import { useSong } from "../../../state/song";
import { readSounds, useSoundList } from "../../../state/soundList";
import { noteName } from "../../../table/material";
import { kitOf } from "../../keys/pitches";
import { SettingSlider } from "./SettingSlider";

type Of = NonNullable<EditInputs["follow_level"]["of"]>;

const keyOf = (of: Of): string => Object.entries(of)[0].join(" ");
const ofKey = (key: string): Of => {
  const [kind, ...rest] = key.split(" ");
  return { [kind]: rest.join(" ") } as Of;
};

/** What is set of a follower, each on a slider. */
const SLIDERS = [
  { id: "attack_ms", name: "Attack", min: 0, max: 500, step: 1, unit: "ms", title: "It rises 63 % of the way in it" },
  {
    id: "release_ms",
    name: "Release",
    min: 0,
    max: 2000,
    step: 5,
    unit: "ms",
    title: "It falls 63 % of the way in it",
  },
  { id: "smooth_ms", name: "Smooth", min: 0, max: 1000, step: 10, unit: "ms", title: "The width of a running mean" },
  {
    id: "floor_db",
    name: "Floor",
    min: -80,
    max: -6,
    step: 1,
    unit: "dB",
    title: "So far under the loudest is nothing",
  },
] as const;

/** What can be followed: clips that are heard and tracks of them, by name. */
function sourcesOf(model: Model, envelope: EnvelopePart): { key: string; words: string }[] {
  const find = lookup(model);
  const own = envelope.owner.startsWith("clip/") ? envelope.owner.slice("clip/".length) : null;
  const clips = Object.values(model.clips)
    .filter(({ kind, id }) => kind !== "carrier" && (find.sharers[id] ?? 0) > 0)
    .map(({ id, name, kind }) => ({
      key: `clip_id ${id}`,
      words: `clip ${name}, ${kind === "audio" ? "loudness" : "notes"}`,
    }));
  const tracks = model.tracks
    .filter(({ kind }) => kind === "audio" || kind === "notes")
    .map(({ id, name, kind }) => ({
      key: `track_id ${id}`,
      words: `track ${name}, ${kind === "audio" ? "loudness" : "notes"}`,
    }));
  const first = clips.filter(({ key }) => key === `clip_id ${own}`);
  return [...first, ...tracks, ...clips.filter((one) => !first.includes(one))];
}

/** The notes that what is followed has: their pitches and what they are called, of a kit by its parts. */
function pitchesOf(catalogue: Catalogue | null, model: Model, of: Of | null): [pitch: number, name: string][] {
  const regions = Object.values(model.regions).filter(({ clip_id, owner }) =>
    of && "clip_id" in of ? clip_id === of.clip_id : owner === `track/${of?.track_id ?? ""}`,
  );
  const notes = regions.flatMap(({ clip_id }) => model.clips[clip_id]?.notes ?? []);
  const track = model.tracks.find(({ id }) => `track/${id}` === regions[0]?.owner);
  const drums = new Map(kitOf(catalogue, track) ?? []);
  return [...new Set(notes.map(({ pitch }) => pitch))]
    .sort((one, other) => one - other)
    .map((pitch) => [pitch, drums.get(pitch) ?? noteName(pitch)]);
}

/** What an envelope follows, and how. */
export function FollowFields({ envelope }: { envelope: EnvelopePart }) {
  const model = useSong((state) => state.model);
  const sounds = useSoundList((state) => state.list);
  useEffect(() => void readSounds(), []);
  const { followed } = envelope;
  const made = followed?.as_made ? followed : null;
  const [chosen, setChosen] = useState<string>(followed ? keyOf(followed.of as Of) : "");
  const envelope_id = envelope.id;
  const of = chosen ? ofKey(chosen) : null;
  const follow = (key: string, more: Partial<EditInputs["follow_level"]> = {}) => {
    setChosen(key);
    if (key) void editAndTell("follow_level", { envelope_id, of: ofKey(key), ...given(made), ...more });
  };
  const catalogue = useSong((state) => state.catalogue);
  const pitches = pitchesOf(catalogue, model, of);
  return (
    <div className="mt-2 flex flex-col gap-1.5" role="group" aria-label="Follow">
      <select
        className="select select-sm w-full pointer-coarse:h-11"
        aria-label="What it follows"
        value={chosen}
        onChange={(event) => follow(event.target.value, { pitches: undefined })}
      >
        <option value="">choose what it follows</option>
        {sourcesOf(model, envelope).map(({ key, words }) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
        {(sounds ?? []).map(({ id, name }) => (
          <option key={id} value={`sound ${id}`}>{`sound ${name}, not played`}</option>
        ))}
      </select>
      {made && (
        <>
          {pitches.length > 1 && (
            <select
              className="select select-sm w-full pointer-coarse:h-11"
              aria-label="Which notes open it"
              value={made.pitches?.length === 1 ? made.pitches[0] : ""}
              onChange={(event) =>
                follow(chosen, { pitches: event.target.value ? [Number(event.target.value)] : undefined })
              }
            >
              <option value="">all notes</option>
              {pitches.map(([pitch, name]) => (
                <option key={pitch} value={pitch}>{`only ${name}`}</option>
              ))}
            </select>
          )}
          {SLIDERS.filter(({ id }) => id !== "floor_db" || pitches.length === 0).map(({ id, name, unit, ...more }) => (
            <SettingSlider
              key={id}
              name={name}
              change="follow_level"
              inputs={(value) => ({ envelope_id, [id]: value })}
              value={made[id] ?? 0}
              text={(value) => `${Math.round(value)} ${unit}`}
              {...more}
            />
          ))}
          <button
            type="button"
            className={`btn btn-xs h-7 pointer-coarse:h-11 ${made.over ? "btn-secondary" : ""}`}
            aria-pressed={made.over ?? false}
            title="Loud is low: it ducks"
            onClick={() => void edit("follow_level", { envelope_id, over: !made.over })}
          >
            Turned over
          </button>
        </>
      )}
      {followed && !made && (
        <p className="faint text-xs">Edited by hand since; a choice above makes its points again.</p>
      )}
    </div>
  );
}

/** What it was made with, but for what it followed. */
function given(made: EnvelopePart["followed"] | null): Partial<EditInputs["follow_level"]> {
  if (!made) return {};
  const { of: _of, as_made: _as, made: _made, sounded: _sounded, ...settings } = made;
  return settings;
}
