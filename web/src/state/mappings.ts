import { create } from "zustand";
import type { Mapping } from "../api/types";
import { api } from "./questions";
import { faultsSaid } from "./queue";
import { song } from "./song";

/** For this song, or for all songs. */
export type Whose = "song" | "all";

interface Mappings {
  song: Mapping[];
  all: Mapping[];
  songId: number | null;
}

/** What the controls of controllers turn. */
export const useMappings = create<Mappings>(() => ({ song: [], all: [], songId: null }));
export const mappingsNow = useMappings.getState;

export async function readMappings(): Promise<void> {
  const { songId } = song();
  if (songId === null) return;
  const lists = await api()
    .mappings()
    .catch(() => null);
  if (lists && song().songId === songId) useMappings.setState({ ...lists, songId });
}

/** Puts a list in place of the one there is. False when it was refused; why is said. */
export async function keepMappings(whose: Whose, list: Mapping[]): Promise<boolean> {
  const before = mappingsNow()[whose];
  useMappings.setState({ [whose]: list });
  const kept = await faultsSaid(() => api().keepMappings({ [whose]: list }));
  useMappings.setState(kept ?? { [whose]: before });
  return kept !== null;
}

const same = (a: Mapping, b: Mapping): boolean =>
  a.device === b.device && a.control === b.control && JSON.stringify(a.target) === JSON.stringify(b.target);

/** One more mapping; of the same control and target the new one holds. */
export const addMapping = (whose: Whose, mapping: Mapping): Promise<boolean> =>
  keepMappings(whose, [...mappingsNow()[whose].filter((one) => !same(one, mapping)), mapping]);

export const changeMapping = (whose: Whose, at: number, change: Partial<Mapping>): Promise<boolean> =>
  keepMappings(
    whose,
    mappingsNow()[whose].map((one, i) => (i === at ? { ...one, ...change } : one)),
  );

export const removeMapping = (whose: Whose, at: number): Promise<boolean> =>
  keepMappings(
    whose,
    mappingsNow()[whose].filter((_, i) => i !== at),
  );

/** A control that is being learnt: what was turned so far, and what it is to turn. */
export interface Learning {
  on: boolean;
  device: string | null;
  control: string | null;
  kind: Mapping["kind"];
  raws: number[];
  /** The parameter that it is to turn, where that was said first. */
  target: string | null;
}

const NOTHING: Learning = { on: false, device: null, control: null, kind: "absolute", raws: [], target: null };

export const useLearning = create<Learning>(() => NOTHING);
export const learningNow = useLearning.getState;
export const setLearning = useLearning.setState;

/** Learns the control turned next, for what is touched then, or for a parameter that is known already. */
export const beginLearning = (target: string | null = null): void => setLearning({ ...NOTHING, on: true, target });
export const endLearning = (): void => setLearning(NOTHING);

/** The knob that was touched is what the control turns. Nothing while none was turned. */
export function learnt(target: Mapping["target"], whose: Whose = target.address ? "song" : "all"): void {
  const { on, device, control, kind } = learningNow();
  if (!on || !device || !control) return;
  endLearning();
  void addMapping(whose, { device, control, target, kind, pickup: "jump", low: 0, high: 1 });
}

/** Whether the box with all of them is open. */
export const useMappingsBox = create<{ open: boolean }>(() => ({ open: false }));
export const openMappings = (): void => useMappingsBox.setState({ open: true });
export const closeMappings = (): void => useMappingsBox.setState({ open: false });
