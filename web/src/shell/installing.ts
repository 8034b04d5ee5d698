import { registerSW } from "virtual:pwa-register";
import { canKeep } from "../api/kept";
import { keepOpenSong } from "../state/keeping";
import { setNotice } from "../state/notice";

/** A page that stays open looks for a newer build so often. */
const LOOK_EVERY_MS = 60 * 60 * 1000;

/** Has the browser keep the page and the song at hand, so that both open while the server is away. */
export function install(): void {
  if (!canKeep()) return;
  keepOpenSong();
  const takeNewer = registerSW({
    onRegisteredSW: (_path, worker) => {
      setInterval(() => void worker?.update().catch(() => undefined), LOOK_EVERY_MS);
    },
    onNeedRefresh: () =>
      setNotice({
        notice: {
          tone: "done",
          words: "A newer Kind Satchel is here. To go on loads it; the song is kept.",
          go: () => {
            navigator.serviceWorker.addEventListener("controllerchange", () => location.reload(), { once: true });
            void takeNewer();
          },
        },
      }),
  });
}
