import { barStart } from "../geometry/viewport";
import { song } from "../state/song";
import { transportNow } from "../state/transport";
import { placeFiles } from "./files";

/** Asks for files; none where nothing was chosen. */
export function chooseFiles(accept: string): Promise<File[]> {
  const field = Object.assign(document.createElement("input"), { type: "file", accept });
  return new Promise((done) => {
    field.onchange = () => done([...(field.files ?? [])]);
    field.oncancel = () => done([]);
    field.click();
  });
}

/** Asks for a MIDI file and takes its tracks in, from the playhead's bar on. */
export async function chooseMidi(): Promise<void> {
  const files = await chooseFiles("audio/midi,.mid,.midi");
  const tick = barStart(song().model.head.meters, transportNow().playhead);
  if (files.length > 0) await placeFiles(files, { trackId: null, tick });
}
