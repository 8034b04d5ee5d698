import { Eye, Unplug } from "lucide-react";
import { useConnection } from "../api/connection";
import { useSong } from "../state/song";

/** Says, for as long as it is so, that the server is away. */
export function Away() {
  const { away, keptAt } = useConnection();
  if (!away || keptAt !== null) return null;
  return (
    <p role="status" className="away away-over">
      <Unplug size={16} className="shrink-0" aria-hidden="true" /> The server is away. Playing goes on with what is
      here; nothing can be changed until it is back.
    </p>
  );
}

const MOMENT = new Intl.DateTimeFormat(undefined, {
  day: "numeric",
  month: "short",
  hour: "2-digit",
  minute: "2-digit",
});

/** A strip at the head of the page, where nothing can be changed: a song that is only shown, or as it was kept. */
export function KeptStrip() {
  const keptAt = useConnection((state) => state.keptAt);
  const shown = useSong((state) => state.catalogue?.read_only === true);
  if (shown)
    return (
      <p role="status" className="away">
        <Eye size={16} className="shrink-0" aria-hidden="true" />
        This song is only shown: it plays and can be looked at, but not changed.
      </p>
    );
  if (keptAt === null) return null;
  return (
    <p role="status" className="away">
      <Unplug size={16} className="shrink-0" aria-hidden="true" />
      Offline: as kept on {MOMENT.format(keptAt)}. It plays, but cannot be changed.
    </p>
  );
}
