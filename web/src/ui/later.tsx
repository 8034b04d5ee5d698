import { type ComponentType, useEffect, useState } from "react";

/** A component that is fetched when it is first shown, or before. */
export class Part<P extends object> {
  found: ComponentType<P> | null = null;
  private asked: Promise<void> | null = null;

  constructor(private readonly load: () => Promise<ComponentType<P>>) {}

  /** Fetches it once; asks again after it could not be had. */
  fetch(): Promise<void> {
    this.asked ??= this.load().then(
      (found) => {
        this.found = found;
      },
      (error) => {
        this.asked = null;
        throw error;
      },
    );
    return this.asked;
  }
}

/** Shows a part, when it is here. */
export function Later<P extends object>({ part, props }: { part: Part<P>; props: P }) {
  const [state, setState] = useState<"waiting" | "here" | "failed">("waiting");
  useEffect(() => {
    if (part.found || state !== "waiting") return;
    let gone = false;
    part.fetch().then(
      () => gone || setState("here"),
      () => gone || setState("failed"),
    );
    return () => {
      gone = true;
    };
  }, [part, state]);
  const Found = part.found;
  if (Found) return <Found {...props} />;
  return state === "failed" ? <Failed again={() => setState("waiting")} /> : null;
}

function Failed({ again }: { again: () => void }) {
  return (
    <div role="alert" className="grid justify-items-start gap-2 p-3">
      <p>This part of the page could not be loaded. Is the server there?</p>
      <button type="button" className="btn btn-sm" onClick={again}>
        Try again
      </button>
    </div>
  );
}

/** Fetches parts one after the other, while nothing else is to be done. */
export async function fetchLater(parts: { fetch: () => Promise<void> }[]) {
  for (const part of parts) {
    await idle();
    await part.fetch().catch(() => {});
  }
}

const idle = () =>
  new Promise<void>((resolve) => {
    if ("requestIdleCallback" in window) requestIdleCallback(() => resolve(), { timeout: 3000 });
    else setTimeout(resolve, 200);
  });
