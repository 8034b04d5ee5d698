import type { Catalogue, TrackPart } from "../../api/types";
import { typedStep } from "../../gestures/inputs";
import { playedTrack } from "../../gestures/playIn";
import { playInNow } from "../../state/playIn";
import { song } from "../../state/song";

/** The sounds of a track's kit by note, in order; null for any other instrument. */
export function kitOf(
  catalogue: Catalogue | null,
  track: TrackPart | undefined,
): [pitch: number, name: string][] | null {
  if (!catalogue || !track?.devices.some(({ type }) => type === "drum-kit")) return null;
  return Object.entries(catalogue.drum_sounds).map(([pitch, id]) => [Number(pitch), capitalised(id)]);
}

const capitalised = (id: string): string => id[0].toUpperCase() + id.slice(1).replace("-", " ");

/** The note that a key of the computer plays on the track at hand. */
export function typedPitch(code: string): number | null {
  const trackId = playedTrack();
  const kit = kitOf(
    song().catalogue,
    song().model.tracks.find(({ id }) => id === trackId),
  );
  const step = typedStep(code, kit !== null);
  if (step === null || !trackId) return null;
  return kit ? (kit[step]?.[0] ?? null) : playInNow().lowest + step;
}
