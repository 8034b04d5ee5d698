import type { EditInputs, HandPass } from "../../api/types";
import { hueStyle, parameterHue } from "../../geometry/hue";
import { editAndTell } from "../../state/edits";
import { focusOn } from "../../state/focus";
import { readPasses } from "../../state/passes";
import { GOALS, ONCE, ROLES } from "../../state/performing";
import { Select } from "../../ui/Choice";
import { Deed } from "../../ui/Deed";
import { NumberField } from "../../ui/Fields";
import { Fineness } from "./Fineness";
import { Laps } from "./Laps";
import { count, spliced } from "./parts";

/** A beat at 960 to the quarter note. */
const BEAT = 960;

/** One parameter of a pass: where it went, how fine it is written, and its laps. */
export function PassCard({ pass }: { pass: HandPass }) {
  const { address, name, owner, places, current, laps } = pass;
  const inputs = { pass: pass.pass, address };
  const kept = pass.parts ? { parts: pass.parts, join_ticks: pass.join_ticks } : {};
  // What is chosen may differ where nothing that is heard does.
  const write = (ways: Partial<EditInputs["rewrite_pass"]>) =>
    editAndTell("rewrite_pass", { ...inputs, ...ways }).then(readPasses);
  const rewrite = (change: Partial<EditInputs["rewrite_pass"]>) => write({ ...kept, ...change });
  const shared = places.find(({ regions }) => regions > 1);
  const found = `${count(pass.points, "point")}, ${closeness(pass.difference)}`;
  return (
    <section className="take-card" aria-label={`${name} of ${owner}`} style={hueStyle(parameterHue(address))}>
      <button type="button" className="text-left" onClick={() => focusOn(address)}>
        <b className="hue">{name}</b> <span className="faint text-xs">{owner}</span>
      </button>
      {!current && (
        <p className="faint text-xs">
          Its points were changed since, so they stay. Undo or redo brings the pass back; a next one takes its place.
        </p>
      )}
      {current && (
        <>
          <Fineness
            tolerance={pass.tolerance}
            inputs={{ ...inputs, ...kept }}
            found={found}
            onCommit={(tolerance) => rewrite({ tolerance })}
          />
          <Laps
            laps={laps}
            parts={pass.parts}
            onChoose={(parts) => void write(parts ? { parts } : {})}
            onDraw={(part) => void write({ parts: spliced(pass, part), join_ticks: pass.join_ticks })}
          />
          {(pass.parts?.length ?? 0) > 1 && (
            <NumberField
              label="Glides over"
              unit="beats"
              value={pass.join_ticks / BEAT}
              min={0}
              max={64}
              onCommit={(beats) => void rewrite({ join_ticks: Math.round(beats * BEAT) })}
            />
          )}
          <Select
            label="Where it is written"
            value={pass.into}
            choices={{ ...GOALS, ...ONCE }}
            onChoose={(into) => void rewrite({ into })}
          />
          <Select
            label="How it acts"
            value={pass.role ?? "as"}
            choices={ROLES}
            onChoose={(role) => role !== "as" && void rewrite({ role })}
          />
        </>
      )}
      {current &&
        pass.said.map((words) => (
          <p key={words} className="text-xs" role="status">
            {words}.
          </p>
        ))}
      <Places pass={pass} />
      {current && shared && (
        <Deed
          words="Separate it there"
          title="The regions played over get a clip of their own with the move; the others get back what they had"
          onDo={() => void rewrite({ separate: true })}
        />
      )}
    </section>
  );
}

function Places({ pass: { places } }: { pass: HandPass }) {
  return (
    <p className="faint text-xs">
      {places.length === 0 && "What it was written into is gone."}
      {places
        .map(({ name, regions }) =>
          regions > 1 ? `in ${name}, heard in ${regions} regions` : `in ${name === "lane" ? "its lane" : name}`,
        )
        .join("; ")}
    </p>
  );
}

/** Less than this is none. */
const NONE = 1e-6;
const closeness = (share: number) =>
  share < NONE ? "just as it was played" : `within ${(share * 100).toPrecision(2)} % of what was played`;
