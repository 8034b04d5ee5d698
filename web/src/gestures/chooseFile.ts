import { barStart } from "../geometry/viewport";
import { song } from "../state/song";
import { transportNow } from "../state/transport";
import { placeFiles } from "./files";

/** Asks for a MIDI file and takes its tracks in, from the playhead's bar on. */
export function chooseMidi(): void {
  const field = Object.assign(document.createElement("input"), { type: "file", accept: "audio/midi,.mid,.midi" });
  field.onchange = () =>
    void placeFiles([...(field.files ?? [])], {
      trackId: null,
      tick: barStart(song().model.head.meters, transportNow().playhead),
    });
  field.click();
}
