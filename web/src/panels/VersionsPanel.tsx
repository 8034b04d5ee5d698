import { useCallback, useEffect, useState } from "react";
import type { ComparedRow, Comparison, EditInputs, VersionEntry } from "../api/types";
import { versionsOf } from "../api/versions";
import { editAndTell } from "../state/edits";
import { tell } from "../state/notice";
import { faultsSaid } from "../state/queue";
import { useSong } from "../state/song";
import { Do } from "../ui/Entry";
import { TextField } from "../ui/Fields";
import { TwoCurves } from "./TwoCurves";

const stamp = (at: string): string =>
  new Date(at).toLocaleString(undefined, { dateStyle: "short", timeStyle: "short" });

/** The song as it stood, under names: kept, compared with now, single moves taken back from it. */
export function VersionsPanel() {
  const songId = useSong((state) => state.songId) as number;
  const [list, setList] = useState<VersionEntry[] | null>(null);
  const [open, setOpen] = useState<number | null>(null);
  const read = useCallback(
    () => faultsSaid(() => versionsOf(songId).list()).then((found) => found && setList(found)),
    [songId],
  );
  useEffect(() => void read(), [read]);
  const keep = async (name: string) => {
    if (!(await faultsSaid(() => versionsOf(songId).keep(name)))) return;
    tell("done", `The song is kept as it stands now: ${name}`);
    await read();
  };
  return (
    <section className="flex flex-col gap-2 p-3" aria-label="Versions">
      <TextField
        named
        label="Keep the song as it stands, under a name"
        value=""
        className="w-full border-base-300 bg-base-200 pointer-coarse:h-11"
        onCommit={keep}
      />
      {list?.length === 0 && (
        <p className="faint text-xs">No version is kept yet. One stays as it is, whatever is undone or edited later.</p>
      )}
      <ul className="flex flex-col gap-1.5">
        {(list ?? []).map((version) => (
          <li key={version.id} className="rounded-field bg-base-200 p-2">
            <button
              type="button"
              className="flex w-full cursor-pointer items-baseline gap-2 text-left pointer-coarse:min-h-11"
              aria-expanded={open === version.id}
              onClick={() => setOpen(open === version.id ? null : version.id)}
            >
              <span className="grow font-semibold">{version.name}</span>
              <span className="faint text-xs">{stamp(version.at)}</span>
            </button>
            {open === version.id && (
              <Compared
                version={version}
                onGone={() => {
                  setOpen(null);
                  void versionsOf(songId).remove(version.id).then(read);
                }}
              />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What differs between a version and the song as it stands. */
function Compared({ version, onGone }: { version: VersionEntry; onGone: () => void }) {
  const songId = useSong((state) => state.songId) as number;
  const revision = useSong((state) => state.revision);
  const [found, setFound] = useState<Comparison | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: compared again when the song changes
  useEffect(() => {
    let over = false;
    void faultsSaid(() => versionsOf(songId).compare(version.id)).then((answer) => {
      if (answer && !over) setFound(answer);
    });
    return () => {
      over = true;
    };
  }, [songId, version.id, revision]);
  if (!found) return <p className="faint text-xs">Comparing …</p>;
  return (
    <div className="mt-1 flex flex-col gap-1.5 text-xs">
      {found.rows.length === 0 && found.others.length === 0 && <p>Nothing that is heard differs from now.</p>}
      {found.others.map((words) => (
        <p key={words}>{words}</p>
      ))}
      {found.rows.map((row) => (
        <Row key={row.address} row={row} version={version} songId={songId} />
      ))}
      <Do words="Let go of this version" onDo={onGone} />
    </div>
  );
}

function Row({ row, version, songId }: { row: ComparedRow; version: VersionEntry; songId: number }) {
  const [open, setOpen] = useState(false);
  const off =
    row.largest === 0 ? "the same is heard" : `at most ${row.largest_text} apart, ${row.mean_text} on average`;
  return (
    <div className="border-t border-base-300 pt-1">
      <button
        type="button"
        className="flex w-full cursor-pointer flex-col text-left pointer-coarse:min-h-11"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        <span className="underline decoration-dotted">{row.name}</span>
        <span className="faint">{off}</span>
      </button>
      {open && (
        <TwoCurves
          name={`${row.name} now, and in ${version.name}`}
          words={`Broad now, thin in ${version.name}.`}
          loss={row}
          curves={() => versionsOf(songId).curves(version.id, row.address)}
        />
      )}
      <div className="flex flex-wrap gap-1">
        {row.moves.map((move) => (
          <Do
            key={move.envelope.id}
            words={`Take it back ${move.owner.startsWith("clip/") ? "into the clip" : "onto the lane"}`}
            onDo={() => void editAndTell("take_envelope", move as EditInputs["take_envelope"])}
          />
        ))}
      </div>
    </div>
  );
}
