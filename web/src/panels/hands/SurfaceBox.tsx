import { clsx } from "clsx";
import { Smartphone, Trash2 } from "lucide-react";
import { useEffect, useState } from "react";
import { keys, songApi } from "../../api/client";
import type { DeviceKey, Invitation } from "../../api/types";
import { openToSurfaces } from "../../gestures/studioSurface";
import { faultsSaid } from "../../state/queue";
import { useSong } from "../../state/song";
import { setStage, surfacesNow, useSurfaces, waitForSurfaces } from "../../state/surfaces";
import { Box } from "../../ui/Box";
import { TextField } from "../../ui/Fields";
import { IconButton } from "../../ui/IconButton";

/** The list of keys is read again this often while the box is open. */
const AGAIN_MS = 3000;

export function AddPhoneButton() {
  const there = useSurfaces((state) => state.there.filter(({ away }) => !away).length);
  return (
    <button
      type="button"
      className="btn btn-sm pointer-coarse:h-11"
      title="Use a phone or a tablet as surface: the song plays here, the hand is there"
      onClick={() => setStage({ box: true })}
    >
      <Smartphone size={14} aria-hidden="true" /> {there > 0 ? `${there} here` : "Add a phone"}
    </button>
  );
}

/** Invites a phone, and shows which devices have keys. */
export function SurfaceBox() {
  const open = useSurfaces((state) => state.box);
  const songId = useSong((state) => state.songId);
  if (!open || songId === null) return null;
  return (
    <Box title="Add a phone" onClose={() => setStage({ box: false })}>
      <Invite songId={songId} />
      <Devices />
    </Box>
  );
}

type Kind = DeviceKey["kind"];
const KINDS: [Kind, string, string][] = [
  ["surface", "Surface", "It turns, plays, records and arms in this song."],
  ["studio", "Studio", "It edits songs too, and takes sounds in. It cannot delete songs or give out keys."],
];

function Invite({ songId }: { songId: number }) {
  const [kind, setKind] = useState<Kind>("surface");
  const [invitation, setInvitation] = useState<Invitation | null>(null);
  useEffect(() => {
    waitForSurfaces();
    if (!surfacesNow().open) openToSurfaces(songId);
    let over = false;
    setInvitation(null);
    void faultsSaid(() => songApi(songId).invitation(kind)).then((found) => found && !over && setInvitation(found));
    return () => {
      over = true;
    };
  }, [songId, kind]);
  return (
    <div className="flex flex-col gap-2">
      <div className="flex gap-1" role="radiogroup" aria-label="What its key allows">
        {KINDS.map(([id, words]) => (
          <button
            key={id}
            type="button"
            role="radio"
            aria-checked={kind === id}
            className={clsx("btn btn-sm grow pointer-coarse:h-11", kind === id && "btn-secondary")}
            onClick={() => setKind(id)}
          >
            {words}
          </button>
        ))}
      </div>
      <p className="faint text-xs">{KINDS.find(([id]) => id === kind)?.[2]}</p>
      {invitation ? (
        <Shown invitation={invitation} />
      ) : (
        <progress className="progress w-40" aria-label="Asking for a key" />
      )}
    </div>
  );
}

/** The address of an invitation, as a picture and as text, and what a phone says to it. */
function Shown({ invitation }: { invitation: Invitation }) {
  const { address, picture, seconds, beyond, fingerprint } = invitation;
  return (
    <div className="flex flex-col gap-2">
      <div className="flex gap-3">
        <img
          className="h-44 w-44 rounded-lg bg-white"
          src={`data:image/svg+xml,${encodeURIComponent(picture)}`}
          alt={`QR code of ${address}`}
        />
        <div className="flex min-w-0 flex-col gap-2 text-sm">
          <p>
            Point the phone's camera at it, or open this address there. It is good for {seconds / 60} minutes and one
            device.
          </p>
          <input
            className="input input-sm w-full"
            readOnly
            value={address}
            aria-label="Address for the phone"
            onFocus={(event) => event.currentTarget.select()}
          />
        </div>
      </div>
      {beyond ? (
        <p className="faint text-xs">
          The phone warns of the connection until it trusts this computer: take{" "}
          <a className="underline" href="/enter/authority.pem" download="kind-satchel-authority.pem">
            the authority
          </a>{" "}
          there from the page it opens. On an iPhone install it under Settings, Profile downloaded, then switch it on
          under General, About, Certificate trust. On Android take it under Security, Encryption and credentials,
          Install a certificate.
          {fingerprint && (
            <>
              {" "}
              Its fingerprint (SHA-256), the same here and there: <code className="break-all">{fingerprint}</code>
            </>
          )}
        </p>
      ) : (
        <p className="text-sm" role="note">
          The server listens to this computer only. To let a phone in, start it with <code>BIND=0.0.0.0 bin/demo</code>.
        </p>
      )}
    </div>
  );
}

function Devices() {
  const [list, setList] = useState<DeviceKey[]>([]);
  useEffect(() => {
    const read = () => void keys.list().then(setList, () => undefined);
    read();
    const timer = setInterval(read, AGAIN_MS);
    return () => clearInterval(timer);
  }, []);
  return (
    <section aria-label="Keys" className="flex flex-col gap-1">
      <h3 className="font-bold">Keys</h3>
      {list.length === 0 && <p className="faint text-sm">No device has one yet.</p>}
      {list.map((key) => (
        <DeviceRow key={key.id} device={key} onList={setList} />
      ))}
    </section>
  );
}

/** One key: whose it is, by a name of one's own or by the kind of device, and what it allows. */
function DeviceRow({ device, onList }: { device: DeviceKey; onList: (list: DeviceKey[]) => void }) {
  const { id, name, kind, entered_at, seen_at } = device;
  const called = name || device.device || "a device";
  const change = (asked: () => Promise<DeviceKey[]>) => faultsSaid(asked).then((list) => list && onList(list));
  return (
    <div className="flex items-center gap-2 text-sm">
      <span className="flex min-w-0 grow flex-col break-words">
        {entered_at ? (
          <TextField
            label={`Name of the key of ${called}`}
            value={called}
            onCommit={(text) => change(() => keys.rename(id, text)).then(() => null)}
          />
        ) : (
          "an invitation, not taken yet"
        )}
        <span className="faint text-xs">
          {[kind, entered_at && name && device.device, seen_at && `seen ${new Date(seen_at).toLocaleString()}`]
            .filter(Boolean)
            .join(" · ")}
        </span>
      </span>
      <IconButton
        label={entered_at ? `Withdraw the key of ${called}` : "Withdraw the invitation"}
        onPress={() => void change(() => keys.withdraw(id))}
      >
        <Trash2 size={14} />
      </IconButton>
    </div>
  );
}
