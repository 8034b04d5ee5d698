/** What a control does while it stands elsewhere than what it turns. */
export type Way = "jump" | "catch" | "scaled";

/** So near a control has caught what it turns. */
const NEAR = 0.02;

/** How one control comes to what it turns, without a jump where that is wanted. Values are 0..1. */
export class Pickup {
  /** Where the control was last; null before it was ever moved. */
  private last: number | null = null;
  private caught = false;

  constructor(private readonly way: Way) {}

  /**
   * The control is at a place, while what it turns stands at a value: the value it comes to; null while it has not been
   * caught.
   */
  turn(place: number, stands: number): number | null {
    const before = this.last;
    this.last = place;
    if (this.way === "jump") return place;
    return this.way === "catch" ? this.catches(before, place, stands) : scaled(before, place, stands);
  }

  /** Something else has moved what it turns. */
  lost(): void {
    this.caught = false;
  }

  private catches(before: number | null, place: number, stands: number): number | null {
    const passed = before !== null && (before - stands) * (place - stands) <= 0;
    this.caught ||= passed || Math.abs(place - stands) <= NEAR;
    return this.caught ? place : null;
  }
}

/** What is left of the way to the end is shared out over what is left of the control's. */
function scaled(before: number | null, place: number, stands: number): number | null {
  if (before === null) return null;
  if (place >= before) return before >= 1 ? stands : stands + ((1 - stands) * (place - before)) / (1 - before);
  return before <= 0 ? stands : stands - (stands * (before - place)) / before;
}
