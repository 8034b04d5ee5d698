import type { EditInputs } from "../api/types";

/** Notes of a pass that are not written yet. */
type Notes = EditInputs["record_notes"];

/** One thing a hand did: the parameter, the lap, the second of the song, and the value; null where it let go. */
export type Sample = [address: string, lap: number, seconds: number, value: number | null];

/** A pass that was broken off, as it is found again. */
export interface Left {
  key: string;
  ways: Omit<EditInputs["record_moves"], "lap" | "from_seconds" | "to_seconds" | "moves">;
  samples: Sample[];
  notes: Notes | null;
}

interface Head {
  ways: Left["ways"];
  /** When something was last added, by the clock. */
  touched: number;
}

const START = "kind-satchel-pass:";
/** A pass to which nothing was added for so long is no other tab's. */
const QUIET_MS = 5000;

/** What is played, written down in the browser as it comes, so that it outlives the page and the server. */
class Journal {
  private key = "";
  private count = 0;
  private waiting: Sample[] = [];

  begin(songId: number, ways: Left["ways"]): void {
    this.key = `${START}${songId}:${ways.pass}`;
    this.count = 0;
    this.waiting = [];
    this.head(ways);
  }

  add(sample: Sample): void {
    this.waiting.push(sample);
  }

  /** Writes down what came since it was last asked to. */
  put(ways: Left["ways"]): void {
    if (this.key === "" || this.waiting.length === 0) return;
    this.store(`${this.key}:${this.count++}`, this.waiting);
    this.waiting = [];
    this.head(ways);
  }

  /** How much is written down. */
  get mark(): number {
    return this.count;
  }

  /** What was written down before a mark is in the song by now. */
  done(mark: number): void {
    for (let i = 0; i < mark; i++) localStorage.removeItem(`${this.key}:${i}`);
  }

  putNotes(notes: Notes | null): void {
    if (this.key === "") return;
    if (notes) this.store(`${this.key}:notes`, notes);
    else localStorage.removeItem(`${this.key}:notes`);
  }

  /** All of the pass is in the song. */
  end(): void {
    if (this.key !== "") drop(this.key);
    this.key = "";
  }

  private head(ways: Left["ways"]): void {
    this.store(this.key, { ways, touched: Date.now() } satisfies Head);
  }

  /** A browser that keeps no more goes on without. */
  private store(key: string, data: unknown): void {
    try {
      localStorage.setItem(key, JSON.stringify(data));
    } catch {
      this.key = "";
    }
  }
}

export const journal = new Journal();

const read = <T>(key: string): T | null => {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "null");
  } catch {
    return null;
  }
};

const keysOf = (start: string): string[] => Object.keys(localStorage).filter((key) => key.startsWith(start));

export function drop(key: string): void {
  for (const one of keysOf(key)) localStorage.removeItem(one);
}

/** Passes into a song that were broken off, the ones without anything in them dropped. */
export function leftOf(songId: number): Left[] {
  const heads = keysOf(`${START}${songId}:`).filter((key) => key.split(":").length === 3);
  return heads.flatMap((key): Left[] => {
    const head = read<Head>(key);
    if (!head || Date.now() - head.touched < QUIET_MS) return [];
    const chunks = keysOf(`${key}:`).filter((one) => !one.endsWith(":notes"));
    const order = (one: string) => Number(one.split(":")[3]);
    const samples = chunks.sort((a, b) => order(a) - order(b)).flatMap((one) => read<Sample[]>(one) ?? []);
    const notes = read<Notes>(`${key}:notes`);
    if (samples.length > 0 || notes) return [{ key, ways: head.ways, samples, notes }];
    drop(key);
    return [];
  });
}
