import { Download, Trash2, Upload } from "lucide-react";
import type { Mapping } from "../../api/types";
import { chooseFiles } from "../../gestures/chooseFile";
import { SIMULATED_NAME } from "../../gestures/inputs";
import { controlWords } from "../../gestures/midi/reader";
import {
  addMapping,
  beginLearning,
  changeMapping,
  closeMappings,
  keepMappings,
  mappingsNow,
  removeMapping,
  setLearning,
  useMappings,
  useMappingsBox,
  type Whose,
} from "../../state/mappings";
import { tell } from "../../state/notice";
import { usePlayIn } from "../../state/playIn";
import { Box } from "../../ui/Box";
import { Select } from "../../ui/Choice";
import { NumberField } from "../../ui/Fields";
import { IconButton } from "../../ui/IconButton";
import { DEEDS } from "./deeds";
import { useNames } from "./useNames";

const KINDS: Record<Mapping["kind"], string> = {
  absolute: "a place",
  twos: "steps, two's complement",
  sign: "steps, sign bit",
  offset: "steps about 64",
  switch: "on while held",
  toggle: "each press turns it over",
};
const PICKUPS: Record<Mapping["pickup"], string> = {
  jump: "jumps to it",
  catch: "waits to be caught",
  scaled: "comes to it by and by",
};
const WHOSE: Record<Whose, string> = { song: "this song", all: "all songs" };

/** What the controls of controllers turn: learnt by turning one and touching a knob. */
export function MappingsBox() {
  const open = useMappingsBox((state) => state.open);
  const { song, all } = useMappings();
  const names = useNames([...song, ...all].flatMap(({ target }) => target.address ?? []));
  if (!open) return null;
  return (
    <Box title="Controllers" onClose={closeMappings}>
      <p className="faint text-sm">
        Press Learn, turn a control of the hardware, then touch a knob on the screen. Or choose below what it does.
      </p>
      <div className="flex gap-2">
        <button
          type="button"
          className="btn btn-sm btn-neutral pointer-coarse:h-11"
          onClick={() => {
            closeMappings();
            beginLearning();
          }}
        >
          Learn
        </button>
        <ReadySource />
        <IconButton label="Save the mappings as a file" onPress={save}>
          <Download size={15} />
        </IconButton>
        <IconButton label="Take mappings from a file" onPress={() => void take()}>
          <Upload size={15} />
        </IconButton>
      </div>
      {(["song", "all"] as const).map((whose) => (
        <section key={whose} className="flex flex-col gap-2" aria-label={`For ${WHOSE[whose]}`}>
          <h3 className="font-bold">For {WHOSE[whose]}</h3>
          {(whose === "song" ? song : all).length === 0 && <p className="faint text-sm">None yet.</p>}
          {(whose === "song" ? song : all).map((mapping, i) => (
            <Row
              key={`${mapping.device} ${mapping.control} ${i}`}
              mapping={mapping}
              at={i}
              whose={whose}
              names={names}
            />
          ))}
        </section>
      ))}
    </Box>
  );
}

const READY: Record<string, string> = {
  "cc/0/1": "mod wheel",
  "cc/0/11": "expression pedal",
  "cc/0/4": "foot pedal",
  "cc/0/64": "sustain pedal",
  "bend/0": "pitch wheel",
  "pressure/0": "pressure",
};

/** Sources every keyboard has need not be turned to be learnt: one is chosen, then the knob is touched. */
function ReadySource() {
  const { input, inputs } = usePlayIn();
  const device = inputs.find(({ id }) => id === input)?.name ?? SIMULATED_NAME;
  return (
    <select
      className="select select-sm w-36 pointer-coarse:h-11"
      aria-label={`A source of ${device}`}
      value=""
      onChange={(event) => {
        closeMappings();
        beginLearning();
        const control = event.target.value;
        setLearning({ device, control, kind: control === "cc/0/64" ? "switch" : "absolute" });
      }}
    >
      <option value="">a wheel or pedal …</option>
      {Object.entries(READY).map(([control, words]) => (
        <option key={control} value={control}>
          {words}
        </option>
      ))}
    </select>
  );
}

interface RowProps {
  mapping: Mapping;
  at: number;
  whose: Whose;
  names: Record<string, string>;
}

function Row({ mapping, at, whose, names }: RowProps) {
  const { device, control, target, kind, pickup, low, high } = mapping;
  const change = (part: Partial<Mapping>) => void changeMapping(whose, at, part);
  const place = kind === "absolute";
  return (
    <div className="mapping">
      <p className="text-sm">
        <b>{controlWords(control)}</b> <span className="faint text-xs">{device}</span> turns{" "}
        <b>{targetWords(target, names)}</b>
      </p>
      <div className="flex flex-wrap items-center gap-1">
        <Select
          label="How its values are meant"
          value={kind}
          choices={KINDS}
          className="w-40"
          onChoose={(next) => change({ kind: next })}
        />
        {place && (
          <Select
            label="While it stands elsewhere"
            value={pickup}
            choices={PICKUPS}
            className="w-40"
            onChoose={(next) => change({ pickup: next })}
          />
        )}
        <NumberField
          label="From"
          unit="%"
          value={low * 100}
          min={0}
          max={100}
          onCommit={(share) => change({ low: share / 100 })}
        />
        <NumberField
          label="To"
          unit="%"
          value={high * 100}
          min={0}
          max={100}
          onCommit={(share) => change({ high: share / 100 })}
        />
        <Select
          label="For which songs"
          value={whose}
          choices={WHOSE}
          className="w-28"
          onChoose={(next) =>
            next !== whose && void addMapping(next, mapping).then((done) => done && removeMapping(whose, at))
          }
        />
        <IconButton label={`Forget ${controlWords(control)}`} onPress={() => void removeMapping(whose, at)}>
          <Trash2 size={14} />
        </IconButton>
      </div>
    </div>
  );
}

function targetWords(target: Mapping["target"], names: Record<string, string>): string {
  if (target.deed) return DEEDS[target.deed];
  if (target.slot) return `place ${target.slot} of the eight at hand`;
  return names[target.address ?? ""] ?? `${target.address}, which this song does not have`;
}

/** The list as JSON, as the server keeps it. */
function save(): void {
  const { song, all } = mappingsNow();
  const url = URL.createObjectURL(new Blob([JSON.stringify([...song, ...all], null, 2)], { type: "application/json" }));
  const link = Object.assign(document.createElement("a"), { href: url, download: "mappings.json" });
  link.click();
  URL.revokeObjectURL(url);
}

async function take(): Promise<void> {
  const [file] = await chooseFiles(".json,application/json");
  if (!file) return;
  const list = await file
    .text()
    .then(JSON.parse)
    .catch(() => null);
  if (!Array.isArray(list)) return tell("fault", `${file.name} holds no list of mappings.`);
  if (await keepMappings("song", [...mappingsNow().song, ...list]))
    tell("done", `${list.length} mappings taken from ${file.name}`);
}
