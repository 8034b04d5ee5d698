import type { EnvelopePart } from "../../../api/types";
import { commandsOf, named } from "../../../commands";
import { CommandMenu } from "../../../commands/CommandMenu";
import { type Command, does } from "../../../commands/command";
import { findParameter, type Placed } from "../../../state/catalogue";
import { lookup } from "../../../state/lookup";
import { useSong } from "../../../state/song";
import { useShown } from "../../../state/useShown";
import { Do } from "../../../ui/Entry";
import { Fold } from "../../../ui/Fold";
import { DriveFromButton } from "../../knobs/DriveButton";
import { FaderChoice } from "../../track/FaderChoice";
import { ClockChoice } from "./ClockChoice";
import { LayerChoice } from "./LayerChoice";
import { RoleChoice } from "./RoleChoice";
import { SourceChoice } from "./SourceChoice";
import { Vary } from "./Vary";

interface Props {
  address: string;
  envelope: EnvelopePart | undefined;
  /** All envelopes of the parameter. */
  envelopes: EnvelopePart[];
}

/** The envelope in hand: what it does, how its time runs, where its values come from. */
export function EnvelopeSection({ address, envelope, envelopes }: Props) {
  const { model } = useShown();
  const catalogue = useSong((state) => state.catalogue);
  const placed = catalogue && findParameter(catalogue, model, address);
  if (!placed) return null;
  if (!envelope) return <NoEnvelope driven={lookup(model).drivers[address] !== undefined} />;
  const clip = envelope.owner.startsWith("clip/") ? model.clips[envelope.owner.slice("clip/".length)] : null;
  const movesAnother = envelope.role === "set" && placed.rests === undefined && !("length_ticks" in placed.owner);
  return (
    <div className="flex flex-col gap-2" data-testid="envelope">
      <h3 className="truncate font-semibold">
        {placed.entry.name} {clip ? `in ${clip.name}` : `lane of ${placed.owner.name}`}
      </h3>
      <EnvelopeDeeds envelope={envelope} name={placed.entry.name} />
      <LayerChoice layers={envelopes.filter(({ owner }) => owner === envelope.owner)} envelope={envelope} />
      <RoleChoice envelope={envelope} setOnly={placed.scale.set_only} />
      {clip ? <ClockChoice envelope={envelope} /> : <LaneFader envelope={envelope} placed={placed} />}
      <SourceChoice envelope={envelope} />
      {clip && (
        <Fold id="vary" words="Vary from loop to loop">
          <Vary envelope={envelope} />
        </Fold>
      )}
      {movesAnother && <DriveFromButton envelopeId={envelope.id} />}
    </div>
  );
}

function NoEnvelope({ driven }: { driven: boolean }) {
  return (
    <p className="faint text-xs">
      {driven ? "No envelope moves it; a macro does." : "Nothing moves it yet."} The + on its knob embeds an envelope in
      the selected clip, or adds a lane.
    </p>
  );
}

const LaneFader = ({ envelope, placed }: { envelope: EnvelopePart; placed: Placed }) => (
  <div className="flex">
    <FaderChoice lane={envelope} placed={placed} />
  </div>
);

/** The commonest of what can be done to it as a whole, and all of that. */
function EnvelopeDeeds({ envelope, name }: { envelope: EnvelopePart; name: string }) {
  const subject = { kind: "envelope", envelopeId: envelope.id } as const;
  const commands = commandsOf(subject);
  // One that is only being tried has none yet.
  if (commands.length === 0) return <div className="h-7 pointer-coarse:h-11" />;
  const press = (command: Command, words = command.words) => (
    <Do
      words={words}
      title={command.why() ?? `${command.words}: ${command.what}`}
      off={command.why() !== null}
      onDo={() => does(command)}
    />
  );
  return (
    <div className="flex gap-1" role="group" aria-label="The envelope as a whole">
      {press(named(commands, "switch"))}
      {press(named(commands, "keep"), "Keep")}
      {press(named(commands, "remove"))}
      <CommandMenu
        subject={subject}
        label={`More for ${name}`}
        title="All that can be done to it"
        look="btn btn-xs h-7 grow font-medium pointer-coarse:h-11"
      >
        More
      </CommandMenu>
    </div>
  );
}
