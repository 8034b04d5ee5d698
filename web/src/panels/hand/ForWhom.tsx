import { useEffect, useState } from "react";
import { newToken, work } from "../../api/client";
import { handingOver, limitSets } from "../../api/handingOver";
import type { HandOverLimits } from "../../api/types";
import { keepLimits, limitTo, readHandOver, setHandOver, useHandOver } from "../../state/handOver";
import { faultsSaid } from "../../state/queue";
import { useSong } from "../../state/song";
import { Do } from "../../ui/Entry";
import { TextField } from "../../ui/Fields";
import { LimitList } from "./LimitList";
import { Losses } from "./Losses";

const same = (one: HandOverLimits, other: HandOverLimits): boolean =>
  JSON.stringify(Object.entries(one).sort()) === JSON.stringify(Object.entries(other).sort());

/** What the other side can do, and what is lost on the way there. */
export function ForWhom() {
  const { known, choices, losses } = useHandOver();
  const songId = useSong((state) => state.songId) as number;
  const [naming, setNaming] = useState(false);
  const { limits } = choices;
  const sets = known?.sets ?? [];
  const { track_ids: _, ...plain } = limits ?? {};
  const chosen = limits ? sets.find((set) => same(set.limits, plain)) : undefined;
  const wish = JSON.stringify(limits ?? null);
  useEffect(() => {
    if (wish === "null" || losses) return;
    const token = newToken();
    let over = false;
    let begun = false;
    const timer = setTimeout(async () => {
      begun = true;
      const found = await faultsSaid(() => handingOver(songId).baking(JSON.parse(wish), token));
      if (found && !over) setHandOver({ losses: found.losses });
    }, 300);
    return () => {
      over = true;
      clearTimeout(timer);
      if (begun) void work.cancel(token).catch(() => undefined);
    };
  }, [wish, losses, songId]);
  const choose = (id: string) => {
    if (id === "") limitTo(null);
    else if (id === "own") limitTo(limits ?? { lanes_only: true, straight: true });
    else limitTo(sets.find((set) => String(set.id) === id)?.limits ?? null);
  };
  return (
    <fieldset className="flex flex-col gap-1.5">
      <legend className="font-semibold">Made to fit</legend>
      <select
        className="select select-sm w-full pointer-coarse:h-11"
        aria-label="What the other side can do"
        value={limits ? String(chosen?.id ?? "own") : ""}
        onChange={(event) => choose(event.target.value)}
      >
        <option value="">anything: all goes as it is heard</option>
        {sets.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
        <option value="own">limits of one's own …</option>
      </select>
      {limits && <LimitList limits={limits} />}
      {limits && (
        <div className="flex gap-1">
          {!chosen && !naming && <Do words="Keep these limits …" onDo={() => setNaming(true)} />}
          {chosen && !chosen.shipped && (
            <Do
              words={`Forget ${chosen.name}`}
              onDo={() => void limitSets.remove(chosen.id).then(() => readHandOver(songId, handingOver(songId)))}
            />
          )}
        </div>
      )}
      {naming && !chosen && (
        <TextField
          named
          label="Name of these limits"
          value=""
          className="w-full"
          onCommit={(name) => {
            setNaming(false);
            void keepLimits(name, songId, handingOver(songId));
          }}
        />
      )}
      {limits && <Losses />}
    </fieldset>
  );
}
