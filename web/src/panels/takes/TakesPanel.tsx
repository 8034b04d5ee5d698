import { Trash2 } from "lucide-react";
import { useEffect } from "react";
import type { HandPass } from "../../api/types";
import { readPasses, usePasses } from "../../state/passes";
import { api } from "../../state/questions";
import { faultsSaid } from "../../state/queue";
import { useSong } from "../../state/song";
import { Deed } from "../../ui/Deed";
import { Fold } from "../../ui/Fold";
import { useNarrow } from "../../ui/useNarrow";
import { HandWaysFields } from "../recording/HandWaysFields";
import { PassCard } from "./PassCard";

/** What hands played, as it is kept: how fine it is written, which laps of it, and where. */
export function TakesPanel() {
  const revision = useSong((state) => state.revision);
  const songId = useSong((state) => state.songId);
  const passes = usePasses((state) => (state.songId === songId ? state.list : NONE));
  const narrow = useNarrow();
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again whenever the song has changed
  useEffect(() => void readPasses(), [revision, songId]);
  return (
    <section className="flex flex-col gap-3 p-3" aria-label="Takes">
      {narrow && (
        <Fold id="hand-ways" words="How it is recorded">
          <HandWaysFields />
        </Fold>
      )}
      {passes.length === 0 && (
        <p className="faint">
          Nothing is kept yet. Press record, then turn a knob while it plays: what you do is written as a move, and
          every lap of it is kept here.
        </p>
      )}
      {passes.map((pass) => (
        <PassCard key={`${pass.pass} ${pass.address}`} pass={pass} />
      ))}
      {passes.length > 0 && (
        <Deed
          rank="remove"
          words="Let go of what was played"
          title="The moves stay as they are; they can no longer be made finer, nor another lap be chosen"
          icon={<Trash2 size={14} />}
          onDo={() => void dropAll(passes)}
        />
      )}
    </section>
  );
}

const NONE: HandPass[] = [];

async function dropAll(passes: HandPass[]): Promise<void> {
  for (const pass of new Set(passes.map((one) => one.pass))) await faultsSaid(() => api().dropPass(pass));
  await readPasses();
}
