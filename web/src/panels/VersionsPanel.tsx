import { Ear } from "lucide-react";
import { useCallback, useEffect, useState } from "react";
import { newToken, work } from "../api/client";
import type { ComparedRow, Comparison, EditInputs, VersionEntry } from "../api/types";
import { versionsOf } from "../api/versions";
import { player } from "../sound/player";
import { editAndTell } from "../state/edits";
import { forgetLast, hearingNow, useHearing } from "../state/hearing";
import { keyHint } from "../state/keyMap";
import { tell } from "../state/notice";
import { faultsSaid } from "../state/queue";
import { useSong } from "../state/song";
import { setWishes } from "../state/wishes";
import { Select } from "../ui/Choice";
import { Do } from "../ui/Entry";
import { TextField } from "../ui/Fields";
import { TwoCurves } from "./TwoCurves";

/** How far a comparison is, is told when it takes longer than this. */
const SHOWN_AFTER_MS = 400;

const stamp = (at: string): string =>
  new Date(at).toLocaleString(undefined, { dateStyle: "short", timeStyle: "short" });

/** The song as it stood, under names: kept, compared with now, single moves taken back from it. */
export function VersionsPanel() {
  const songId = useSong((state) => state.songId) as number;
  const [list, setList] = useState<VersionEntry[] | null>(null);
  const [open, setOpen] = useState<number | null>(null);
  const [naming, setNaming] = useState<number | null>(null);
  const read = useCallback(
    () => faultsSaid(() => versionsOf(songId).list()).then((found) => found && setList(found)),
    [songId],
  );
  useEffect(() => void read(), [read]);
  const name = (id: number) => {
    setNaming(id);
    setWishes({ field: "version-name", back: () => setNaming(null) });
  };
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
            {naming === version.id ? (
              <TextField
                label={`Name of the version ${version.name}`}
                field="version-name"
                value={version.name}
                className="w-full"
                onCommit={(name) => faultsSaid(() => versionsOf(songId).rename(version.id, name)).then(read)}
                onLeave={() => setNaming(null)}
              />
            ) : (
              <button
                type="button"
                className="flex w-full cursor-pointer items-baseline gap-2 text-left pointer-coarse:min-h-11"
                aria-expanded={open === version.id}
                title="Compare it with now; a double press names it"
                onClick={() => setOpen(open === version.id ? null : version.id)}
                onDoubleClick={() => name(version.id)}
                onKeyDown={(event) => event.key === "F2" && name(version.id)}
              >
                <span className="grow font-semibold">{version.name}</span>
                <span className="faint text-xs">{stamp(version.at)}</span>
              </button>
            )}
            {open === version.id && (
              <Compared
                version={version}
                onName={() => name(version.id)}
                others={list?.filter(({ id }) => id !== version.id) ?? []}
                onGone={() => {
                  setOpen(null);
                  if (hearingNow().version?.id === version.id) void player.hear(null);
                  forgetLast(version.id);
                  void faultsSaid(() => versionsOf(songId).remove(version.id)).then(read);
                }}
              />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

interface ComparedProps {
  version: VersionEntry;
  others: VersionEntry[];
  onName: () => void;
  onGone: () => void;
}

/** A version: heard in place of the song, and what differs from it in the song as it stands, or in another version. */
function Compared({ version, others, onName, onGone }: ComparedProps) {
  const [withId, setWithId] = useState("now");
  const against = others.find(({ id }) => String(id) === withId) ?? null;
  const { found, share } = useComparison(version, against);
  const choices = { now: "the song now", ...Object.fromEntries(others.map(({ id, name }) => [String(id), name])) };
  return (
    <div className="mt-1 flex flex-col gap-1.5 text-xs">
      <div className="flex flex-wrap items-center gap-1">
        <HearIt version={version} />
        {others.length > 0 && (
          <span className="flex grow items-center gap-1">
            against
            <Select
              label={`Compare ${version.name} with`}
              value={withId}
              choices={choices as Record<string, string>}
              className="min-w-0 grow"
              onChoose={setWithId}
            />
          </span>
        )}
      </div>
      {!found && <p className="faint">Comparing … {share > 0 && `${Math.round(share * 100)} %`}</p>}
      {found?.rows.length === 0 && found.others.length === 0 && (
        <p>Nothing that is heard differs from {against ? against.name : "now"}.</p>
      )}
      {found?.others.map((words) => (
        <p key={words}>{words}</p>
      ))}
      {found?.rows.map((row) => (
        <Row key={row.address} row={row} version={version} against={against} />
      ))}
      <div className="flex gap-1">
        <Do words="Rename" title="Or double-press its name (F2)" onDo={onName} />
        <Do words="Let go of this version" onDo={onGone} />
      </div>
    </div>
  );
}

/** What differs, found again when the song changes; of a large song how far the search is. */
function useComparison(version: VersionEntry, against: VersionEntry | null) {
  const songId = useSong((state) => state.songId) as number;
  const revision = useSong((state) => state.revision);
  const [found, setFound] = useState<Comparison | null>(null);
  const [share, setShare] = useState(0);
  const other = against?.id ?? null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was found against another one is not shown
  useEffect(() => setFound(null), [other]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: compared again when the song changes
  useEffect(() => {
    let over = false;
    const token = newToken();
    let events: EventSource | null = null;
    const wait = setTimeout(() => {
      events = work.follow(token, (done) => setShare(done));
    }, SHOWN_AFTER_MS);
    const leave = () => {
      clearTimeout(wait);
      events?.close();
    };
    void faultsSaid(() => versionsOf(songId).compare(version.id, other, token))
      .then((answer) => {
        if (answer && !over) setFound(answer);
      })
      .finally(leave);
    return () => {
      over = true;
      leave();
    };
  }, [songId, version.id, other, revision]);
  return { found, share };
}

/** Has a version heard from where the song is, and the song as it stands again. */
function HearIt({ version }: { version: VersionEntry }) {
  const heard = useHearing((state) => state.version?.id === version.id);
  const way = heard ? "The song as it stands again" : "In place of the song as it stands, from where it plays";
  return (
    <button
      type="button"
      className={`btn btn-xs pointer-coarse:h-11 ${heard ? "btn-warning" : "btn-outline"}`}
      aria-pressed={heard}
      title={`${way} ${keyHint("other")}`}
      onClick={() => void faultsSaid(() => player.hear(heard ? null : version))}
    >
      <Ear size={13} aria-hidden="true" /> {heard ? "Hearing it" : "Hear it"}
    </button>
  );
}

interface RowProps {
  row: ComparedRow;
  version: VersionEntry;
  against: VersionEntry | null;
}

function Row({ row, version, against }: RowProps) {
  const songId = useSong((state) => state.songId) as number;
  const [open, setOpen] = useState(false);
  const now = against?.name ?? "now";
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
          name={`${row.name} ${against ? `in ${now}` : now}, and in ${version.name}`}
          words={`Broad ${against ? `in ${now}` : now}, thin in ${version.name}.`}
          loss={row}
          curves={() => versionsOf(songId).curves(version.id, against?.id ?? null, row.address)}
        />
      )}
      {!against && <TakeBack row={row} />}
    </div>
  );
}

/** What of a parameter can be taken back from a version. */
function TakeBack({ row }: { row: ComparedRow }) {
  const { address, knob, released } = row;
  return (
    <div className="flex flex-wrap gap-1">
      {released && (
        <Do words="Hand its knob back" onDo={() => void editAndTell("hand_back", { addresses: [address] })} />
      )}
      {knob !== undefined && (
        <Do words="Turn its knob back" onDo={() => void editAndTell("set_knob", { address, value: knob })} />
      )}
      {row.moves.map((move) => (
        <Do
          key={move.envelope.id}
          words={`Take it back ${move.owner.startsWith("clip/") ? "into the clip" : "onto the lane"}`}
          onDo={() => void editAndTell("take_envelope", move as EditInputs["take_envelope"])}
        />
      ))}
    </div>
  );
}
