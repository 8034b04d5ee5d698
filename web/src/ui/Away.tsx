import { Unplug } from "lucide-react";
import { useConnection } from "../api/connection";

/** Says, for as long as it is so, that the server is away. */
export function Away() {
  const away = useConnection((state) => state.away);
  if (!away) return null;
  return (
    <p role="status" className="away">
      <Unplug size={16} aria-hidden="true" /> The server is away. Playing goes on with what is here; nothing can be
      changed until it is back.
    </p>
  );
}
