import { clsx } from "clsx";
import { X } from "lucide-react";
import { useEffect } from "react";
import { step } from "../state/edits";
import { setNotice, useNotice, useSpoken } from "../state/notice";

/** There from the start, so that what is put into it is read: every edit, undo and redo, once. */
export function Spoken() {
  const words = useSpoken((state) => state.words);
  return (
    <p role="status" className="sr-only" data-testid="spoken">
      {words}
    </p>
  );
}

/** What was done, in words, with the way back; or what went wrong. */
export function Notice({ narrow }: { narrow: boolean }) {
  const notice = useNotice((state) => state.notice);
  useEffect(() => {
    if (!notice || notice.go) return;
    const timer = setTimeout(() => setNotice({ notice: null }), notice.tone === "fault" ? 9000 : 4500);
    return () => clearTimeout(timer);
  }, [notice]);
  if (!notice) return null;
  return (
    <div
      role={notice.tone === "fault" ? "alert" : undefined}
      className={clsx(
        "notice flex max-w-[92vw] items-center gap-3 rounded-box px-3 shadow-lg",
        narrow ? "min-h-11 w-max py-1 text-xs leading-4" : "fixed bottom-44 left-1/2 z-50 -translate-x-1/2 py-2",
        notice.tone === "fault" ? "bg-error text-error-content" : "bg-neutral text-neutral-content",
      )}
    >
      <span className={narrow ? "line-clamp-3" : ""} title={notice.words}>
        {notice.words}
      </span>
      {notice.go && (
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => {
            setNotice({ notice: null });
            notice.go?.();
          }}
        >
          Go on
        </button>
      )}
      {notice.no && (
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          onClick={() => {
            setNotice({ notice: null });
            notice.no?.();
          }}
        >
          Drop it
        </button>
      )}
      {notice.back && (
        <button
          type="button"
          className="underline"
          onClick={() => {
            setNotice({ notice: null });
            notice.back?.();
          }}
        >
          Put it back
        </button>
      )}
      {notice.undo && (
        <button type="button" className="underline" onClick={() => void step("undo")}>
          Undo
        </button>
      )}
      <button type="button" aria-label="Close" onClick={() => setNotice({ notice: null })}>
        <X size={14} />
      </button>
    </div>
  );
}
