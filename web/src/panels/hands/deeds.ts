/** What a control may do besides turning something. */
export const DEEDS = {
  play: "play or stop",
  record: "record or stop",
  hand_back: "hand back all",
  next_set: "next eight",
  last_set: "the eight before",
} as const;
