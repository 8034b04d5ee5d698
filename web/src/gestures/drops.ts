import type { PointerEvent } from "react";
import type { EditInputs, EnvelopePart, Px, SatchelEntry, Ticks } from "../api/types";
import { hasLanes, stripsOf } from "../geometry/heights";
import { barStart, barTicks, meterAt } from "../geometry/viewport";
import { TEMPO, trackOf } from "../state/catalogue";
import { chosenNow, setChoice } from "../state/choice";
import { choiceNow } from "../state/choosing";
import { editAndTell } from "../state/edits";
import { focusOf, focusOn } from "../state/focus";
import { gridNow, snapSong } from "../state/grid";
import { handNow, setHand } from "../state/hand";
import { holdsRegions } from "../state/holds";
import { inHand, type Level, takeLayer } from "../state/layers";
import { lookup } from "../state/lookup";
import { previewer } from "../state/previewer";
import { satchelNow, setSatchel, waysGiven } from "../state/satchel";
import { song } from "../state/song";
import { placeAt, rowBox, tempoTickAt } from "../state/stage";
import { transportNow } from "../state/transport";
import { setView, viewNow } from "../state/view";
import { drag } from "./drag";
import { whenHeld } from "./hold";

/** Where a move comes to: an envelope, or a parameter in a clip or on its lane. */
export type Goal = Pick<EditInputs["drop_move"], "envelope_id" | "address" | "clip_id" | "tick" | "length_ticks">;

/** What a move is dropped on at a tick of a track: in the clip that lies there, or on the lane. */
function goalOn(trackId: string, address: string, songTick: Ticks, level: Level): Goal | null {
  const { model, windows } = song();
  const find = lookup(model);
  const owner = `track/${trackId}`;
  const under = (find.regions[owner] ?? []).find(
    ({ start_tick, length_ticks }) => songTick >= start_tick && songTick < start_tick + length_ticks,
  );
  const layer = viewNow().layer[`${trackId} ${level}`];
  const asIs = satchelNow().ways.how === "as_is";
  const tick = Math.max(0, snapSong(songTick, gridNow()));
  if (level === "lane") {
    const lane = inHand(
      (find.targets[address] ?? []).filter((envelope) => envelope.owner.startsWith("track/")),
      layer,
    );
    const place = lane ? { envelope_id: lane.id } : { address };
    return { ...place, ...(asIs ? { tick } : stretchOfSong(lane, songTick, under)) };
  }
  if (!under) return null;
  const list = (find.envelopes[`clip/${under.clip_id}`] ?? []).filter(({ target }) => target === address);
  const envelope = inHand(list, layer);
  const place = envelope ? { envelope_id: envelope.id } : { address, clip_id: under.clip_id };
  const window = envelope && windows[under.id]?.[envelope.id]?.find(([from, to]) => songTick >= from && songTick < to);
  const length = model.clips[under.clip_id].length_ticks;
  const own = window
    ? window[2] + (tick - window[0]) * window[3]
    : (tick - under.start_tick + under.offset_ticks) % Math.max(1, length);
  const inside = Math.max(0, Math.round(own));
  if (asIs) return { ...place, tick: inside };
  const span = envelope && chosenSpan(envelope);
  return span && inside >= span[0] && inside <= span[1]
    ? { ...place, tick: span[0], length_ticks: span[1] - span[0] }
    : place;
}

function chosenSpan(envelope: EnvelopePart): [Ticks, Ticks] | null {
  const choice = choiceNow();
  return choice?.envelope.id === envelope.id && choice.span && choice.span[1] > choice.span[0] ? choice.span : null;
}

/** The stretch of a lane that is meant at a tick: the chosen one, the region over it, the range, its bar. */
function stretchOfSong(
  lane: EnvelopePart | undefined,
  tick: Ticks,
  under: { start_tick: Ticks; length_ticks: Ticks } | undefined,
): Pick<Goal, "tick" | "length_ticks"> {
  const { range, meters } = song().model.head;
  const span = lane && chosenSpan(lane);
  const within = (from: Ticks, to: Ticks) => tick >= from && tick < to;
  if (span && within(span[0], span[1])) return { tick: span[0], length_ticks: span[1] - span[0] };
  if (under) return { tick: under.start_tick, length_ticks: under.length_ticks };
  if (range.on && within(range.start_tick, range.end_tick))
    return { tick: range.start_tick, length_ticks: range.end_tick - range.start_tick };
  return { tick: barStart(meters, tick), length_ticks: barTicks(meterAt(meters, tick)) };
}

/** What a move is dropped on at a place of the screen; null where there is nothing. */
export function goalAt(x: Px, y: Px): Goal | null {
  const tempo = tempoTickAt(x, y);
  if (tempo !== null) return goalOn(trackOf(song().model, TEMPO), TEMPO, tempo, "lane");
  const place = placeAt(x, y);
  const track = song().model.tracks.find(({ id }) => id === place?.trackId);
  const address = track && focusOf(track.id);
  const box = track && rowBox(track.id);
  if (!place || !track || !address || !box || place.tick < 0) return null;
  const { material, lane } = stripsOf(viewNow().tall[track.id], track);
  const down = y - box.top;
  const clips = holdsRegions(track) ? (viewNow().unfolded.includes(track.id) ? material : box.height) : 0;
  if (down < clips) return goalOn(track.id, address, place.tick, "clip");
  return hasLanes(track) && down < clips + lane ? goalOn(track.id, address, place.tick, "lane") : null;
}

/** What a move is dropped on without a pointer: the envelope at hand, else the parameter in focus. */
export function goalInHand(focus: string | null): Goal | null {
  const { model } = song();
  const choice = choiceNow();
  if (choice && (!focus || choice.envelope.target === focus || choice.envelope.target.startsWith("move/"))) {
    const trackId = trackOf(model, choice.envelope.target);
    const level: Level = choice.envelope.owner.startsWith("clip/") ? "clip" : "lane";
    const span = chosenSpan(choice.envelope);
    if (span) return { envelope_id: choice.envelope.id, tick: span[0], length_ticks: span[1] - span[0] };
    if (level === "clip") return { envelope_id: choice.envelope.id };
    return goalOn(trackId, choice.envelope.target, transportNow().playhead, "lane");
  }
  if (!focus) return null;
  const region = model.regions[chosenNow().regionId ?? ""];
  const trackId = trackOf(model, focus);
  if (region) return goalOn(region.owner.slice("track/".length), focus, region.start_tick, "clip");
  return goalOn(trackId, focus, transportNow().playhead, "lane");
}

export const inputsOf = (entry: SatchelEntry, goal: Goal): EditInputs["drop_move"] => {
  const { role, ...ways } = waysGiven(satchelNow().ways);
  return { move: entry.move, ...goal, ...ways, ...(role && !goal.envelope_id ? { role } : {}) };
};

/** Drops a move, and takes in hand what it is now. */
export async function dropMove(entry: SatchelEntry, goal: Goal): Promise<boolean> {
  const inputs = inputsOf(entry, goal);
  const change = await editAndTell("drop_move", inputs);
  if (!change) return false;
  const made = change.parts.find(([kind]) => kind === "envelope")?.[1] ?? goal.envelope_id;
  const envelope = made ? song().model.envelopes[made] : undefined;
  if (!envelope) return true;
  const { model } = song();
  const region = envelope.owner.startsWith("clip/")
    ? Object.values(model.regions).find((one) => `clip/${one.clip_id}` === envelope.owner)
    : undefined;
  const chosen = model.regions[chosenNow().regionId ?? ""];
  const at = chosen && `clip/${chosen.clip_id}` === envelope.owner ? chosen : region;
  const home = at ? at.owner.slice("track/".length) : envelope.owner.slice("track/".length);
  focusOn(envelope.target);
  takeLayer(home, at ? "clip" : "lane", envelope.role);
  const { unfolded, focus } = viewNow();
  setView({
    trackId: home,
    focus: { ...focus, [home]: envelope.target },
    unfolded: unfolded.includes(home) ? unfolded : [...unfolded, home],
  });
  setChoice({ envelopeId: envelope.id, chosen: [], span: null, windowFrom: at?.start_tick ?? 0 });
  return true;
}

/** Takes a move in hand by a press, and carries it by a drag (of a finger, once it was held): the ghost goes along. */
export function pressMove(event: PointerEvent, entry: SatchelEntry): void {
  const [x0, y0] = [event.clientX, event.clientY];
  const finger = event.pointerType === "touch";
  whenHeld(event, (press) => {
    const trial = previewer();
    let goal: Goal | null = null;
    if (finger) setSatchel({ id: entry.id });
    const end = (dropped: boolean) => {
      setHand({ carry: null });
      trial.end(dropped);
    };
    drag(press, {
      move: ({ dx, dy }) => {
        const [x, y] = [x0 + dx, y0 + dy];
        const next = goalAt(x, y);
        setHand({
          carry: {
            x,
            y,
            fault: next ? (handNow().carry?.fault ?? null) : `${entry.move.name}: drop it on a clip or a lane`,
          },
        });
        if (next && JSON.stringify(next) !== JSON.stringify(goal)) trial.ask("drop_move", inputsOf(entry, next));
        goal = next;
      },
      drop: ({ moved, dx, dy }) => {
        if (!moved) {
          end(false);
          setSatchel({ id: entry.id });
          return;
        }
        goal = goalAt(x0 + dx, y0 + dy);
        end(goal !== null);
        setSatchel({ id: entry.id });
        if (goal) void dropMove(entry, goal);
      },
      cancel: () => end(false),
    });
  });
}
