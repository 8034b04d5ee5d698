import type { Change } from "./generated/wire";

export type { KeptMove } from "./generated/drop_move";
export type { EditInputs } from "./generated/edits";
export type { Snippet } from "./generated/paste_snippet";
export type { SongStretch } from "./generated/paste_time";
export type { SongDocument } from "./generated/take_tracks";
export type {
  AtPlayhead,
  BakedCurves,
  Baking,
  Catalogue,
  Change,
  ClipKind,
  ClipPart,
  ClockTable,
  ComparedRow,
  Comparison,
  Conflict,
  ControllerRow,
  Corners,
  CurvePatch,
  DeviceKey,
  Drawing,
  EditHistory,
  EditNotice,
  EnvelopePart,
  Explanation,
  Fault,
  Fetchable,
  Freed,
  Gone,
  HandedOver,
  HandOver,
  HandOverChoices,
  HandOverLimits,
  HandOverLoss,
  HandOverSound,
  HandPass,
  Head,
  HeardBands,
  Help,
  Invitation,
  KeyList,
  LimitSet,
  Listening,
  LooseEnd,
  LooseEnds,
  Mapping,
  MappingLists,
  Meter,
  MidiDocument,
  MissingSounds,
  MoveRow,
  MoveSettings,
  MovesTable,
  News,
  NoteRecord,
  OfflineCopy,
  ParameterEntry,
  Part,
  Pass,
  PresetEntry,
  Preview,
  Progress,
  Reading,
  RegionPart,
  SatchelEntry,
  ScaleEntry,
  ShelfEntry,
  Snapshot,
  SoundEntry,
  SoundEvent,
  SoundOutline,
  SoundToRender,
  Step,
  Stretch,
  Take,
  TouchedPoint,
  TrackCounts,
  TrackDrawing,
  TrackPart,
  Values,
  VersionEntry,
  VersionParts,
  Wants,
  Window,
  WrittenPoint as PointRecord,
} from "./generated/wire";

/** Song positions and lengths: 960 ticks to the quarter note. */
export type Ticks = number & { readonly unit?: "ticks" };
/** Clock time from the start of the song. */
export type Seconds = number & { readonly unit?: "seconds" };
/** Pixels across or down. */
export type Px = number & { readonly unit?: "px" };
/** 0..1, the whole travel of a knob; -1..1 in a shift envelope. */
export type Normalised = number & { readonly unit?: "normalised" };

/** What an edit changed, or would change. */
export type Changed = Omit<Change, "revision" | "undo" | "redo">;
