import { player } from "../sound/player";
import { journal } from "../state/journal";
import { tell } from "../state/notice";
import { anyArmed, disarm, performingNow, setPerforming } from "../state/performing";
import { playInNow } from "../state/playIn";
import { song } from "../state/song";
import { transportNow, useTransport } from "../state/transport";
import { setView, viewNow } from "../state/view";
import { isNarrow } from "../ui/useNarrow";
import { movePass } from "./movePass";
import { playedTrack } from "./playIn";
import { recorder } from "./recorder";

let unfollow = (): void => {};

/** Arms the track at hand where nothing is armed. */
function armSomething(): void {
  const { trackId } = viewNow();
  const track = song().model.tracks.find(({ id }) => id === trackId);
  if (track && track.kind !== "carrier" && !anyArmed(performingNow().armed))
    setPerforming({ armed: { knobs: [], tracks: [track.id], clips: [] } });
}

/** Begins a pass: counted in, or, while the song plays, at once. */
export async function startRecording(): Promise<void> {
  const { taken } = performingNow();
  const notesOn = taken === "moves" ? null : playedTrack();
  if (taken !== "notes") armSomething();
  if (!notesOn && !(taken !== "notes" && anyArmed(performingNow().armed)))
    return tell(
      "fault",
      taken === "notes"
        ? "Choose a track of notes first: press its name."
        : "Arm a track or a knob first, or press the name of a track.",
    );
  await player.hear(null);
  const pass = `pass-${Date.now().toString(36)}-${Math.random().toString(36).slice(2, 8)}`;
  setPerforming({ pass });
  movePass.open(pass);
  if (notesOn) await recorder.start(notesOn, pass);
  else {
    await player.awake();
    if (!transportNow().playing) await player.play(playInNow().countIn);
  }
  if (performingNow().pass !== pass) return;
  if (taken !== "notes") movePass.begin();
  unfollow = useTransport.subscribe(({ playing }) => {
    if (!playing) void stopRecording();
  });
  // It may have been stopped while the sound was waking.
  if (!transportNow().playing) void stopRecording();
}

/** Ends the pass, and has it written. The song goes on. */
export async function stopRecording(): Promise<void> {
  if (!performingNow().pass) return;
  unfollow();
  const movesToo = movePass.going;
  const ending = Promise.all([movePass.end(), recorder.stop()]);
  setPerforming({ pass: null });
  if (!performingNow().pinned) disarm();
  const done = await ending;
  // By then another pass may have begun.
  if (done.every(Boolean) && performingNow().pass === null) journal.end();
  if (movesToo && movePass.wrote && !isNarrow()) setView({ sheet: "takes" });
}

export const toggleRecording = (): Promise<void> => (performingNow().pass ? stopRecording() : startRecording());
