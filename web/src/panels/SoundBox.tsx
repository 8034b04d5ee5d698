import { Play, Trash2, Upload } from "lucide-react";
import { useRef, useState } from "react";
import type { SoundEntry } from "../api/types";
import { placeSound } from "../gestures/files";
import { type Owner, ownerById } from "../state/catalogue";
import { song, useSong } from "../state/song";
import { addSound, closeSounds, freeSounds, giveSound, removeSound, useSoundList } from "../state/soundList";
import { transportNow } from "../state/transport";
import { viewNow } from "../state/view";
import { toWave } from "../state/waves";
import { Box } from "../ui/Box";

type Order = "by name" | "by length" | "own first";
const byName = (one: SoundEntry, other: SoundEntry) => one.name.localeCompare(other.name);
const ORDERS: Record<Order, (one: SoundEntry, other: SoundEntry) => number> = {
  "by name": byName,
  "by length": (one, other) => one.seconds - other.seconds || byName(one, other),
  "own first": (one, other) => Number(one.shipped) - Number(other.shipped) || byName(one, other),
};

const isUnused = ({ shipped, used_in }: SoundEntry) => !shipped && used_in.length === 0;

/** The sounds of the store: to be chosen for a sampler, heard, added from a file, or let go of. */
export function SoundBox() {
  const open = useSoundList((state) => state.open);
  const list = useSoundList((state) => state.list);
  const owner = useSong(({ model }) => (open && typeof open === "object" ? ownerById(model, open.chain) : undefined));
  const [fault, setFault] = useState<string | null>(null);
  const [wish, setWish] = useState("");
  const [order, setOrder] = useState<Order>("by name");
  const words = wish.toLowerCase().split(/\s+/);
  const found = (list ?? [])
    .filter(({ name }) => words.every((word) => name.toLowerCase().includes(word)))
    .sort(ORDERS[order]);
  const unused = (list ?? []).filter(isUnused).length;
  const player = useRef<HTMLAudioElement>(null);
  if (!open) return null;
  const places = open === "place";
  const device = typeof open === "string" ? undefined : owner?.devices?.find(({ id }) => id === open.deviceId);
  const take = async (file: File | undefined) => {
    setFault(null);
    const wave = file && (await toWave(file).catch(() => null));
    if (wave === null) return setFault("This is no sound that this browser can read.");
    const made = wave && (await addSound(wave, setFault));
    if (made) choose(made);
  };
  const choose = (sound: SoundEntry) => {
    if (owner && device) void giveSound(owner as Owner, device.id, sound).then(closeSounds);
    else if (places) void placeSound(sound, goalNow()).then(closeSounds);
  };
  const hear = (sound: SoundEntry) => {
    if (!player.current) return;
    player.current.src = `/sounds/${sound.digest}.wav`;
    void player.current.play();
  };
  return (
    <Box title={device ? "A sound for the sampler" : places ? "A sound for the song" : "Sounds"} onClose={closeSounds}>
      {/* biome-ignore lint/a11y/useMediaCaption: a sound without words */}
      <audio ref={player} className="hidden" />
      <div className="flex items-center gap-2">
        <input
          type="search"
          className="input input-sm grow pointer-coarse:h-11"
          placeholder="Find a sound"
          aria-label="Find a sound"
          value={wish}
          onChange={({ target }) => setWish(target.value)}
        />
        <select
          className="select select-sm w-32 shrink-0 pointer-coarse:h-11"
          aria-label="Order of the sounds"
          value={order}
          onChange={({ target }) => setOrder(target.value as Order)}
        >
          {Object.keys(ORDERS).map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </div>
      {list && found.length === 0 && <p className="faint">No sound has a name like that.</p>}
      <ul className="flex flex-col gap-1" aria-label="Sounds">
        {found.map((sound) => (
          <SoundRow
            key={sound.digest}
            sound={sound}
            chosen={device?.sound === sound.id}
            onHear={() => hear(sound)}
            onChoose={device || places ? () => choose(sound) : undefined}
            onRemove={() => {
              setFault(null);
              void removeSound(sound, setFault);
            }}
          />
        ))}
      </ul>
      {fault && (
        <p role="alert" className="text-error">
          {fault}
        </p>
      )}
      {unused > 1 && (
        <button
          type="button"
          className="btn btn-ghost btn-sm pointer-coarse:h-11"
          onClick={() => void freeSounds(unused, setFault)}
        >
          <Trash2 size={14} aria-hidden="true" /> Let go of all {unused} that nothing uses
        </button>
      )}
      <label className="btn btn-sm pointer-coarse:h-11">
        <Upload size={14} aria-hidden="true" /> Add a file …
        <input
          type="file"
          accept="audio/*,.wav"
          className="sr-only"
          aria-label="Add a sound from a file"
          onChange={(event) => void take(event.target.files?.[0])}
        />
      </label>
    </Box>
  );
}

interface RowProps {
  sound: SoundEntry;
  chosen: boolean;
  onHear: () => void;
  onChoose: (() => void) | undefined;
  onRemove: () => void;
}

function SoundRow({ sound, chosen, onHear, onChoose, onRemove }: RowProps) {
  const used = sound.used_in.map(({ name }) => name).join(", ");
  const words = (
    <>
      {sound.name}
      <span className="faint text-xs">
        {sound.seconds.toFixed(2)} s{used && `, in ${used}`}
      </span>
    </>
  );
  return (
    <li className="flex items-center gap-1">
      <button
        type="button"
        className="btn btn-ghost btn-sm btn-square"
        aria-label={`Hear ${sound.name}`}
        onClick={onHear}
      >
        <Play size={14} />
      </button>
      {onChoose ? (
        <button type="button" className="preset" aria-current={chosen} onClick={onChoose}>
          {words}
        </button>
      ) : (
        <span className="preset cursor-default">{words}</span>
      )}
      {isUnused(sound) && (
        <button
          type="button"
          className="btn btn-ghost btn-sm btn-square"
          aria-label={`Let go of ${sound.name}`}
          title="Nothing uses it: let go of it"
          onClick={onRemove}
        >
          <Trash2 size={14} />
        </button>
      )}
    </li>
  );
}

/** Where a chosen sound goes: at the playhead, on the track at hand if it plays sounds. */
function goalNow() {
  const { trackId } = viewNow();
  const track = song().model.tracks.find(({ id, kind }) => id === trackId && kind === "audio");
  return { trackId: track?.id ?? null, tick: transportNow().playhead };
}
