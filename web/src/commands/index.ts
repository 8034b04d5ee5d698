import type { Kind } from "../state/menu";
import type { Command } from "./command";
import { POINT_COMMANDS } from "./points";
import { REGION_COMMANDS } from "./regions";

/** What can be done, by what it is done to. */
export const COMMANDS: Record<Exclude<Kind, "bars">, Command[]> = { regions: REGION_COMMANDS, points: POINT_COMMANDS };

export { POINT_COMMANDS, REGION_COMMANDS };

/** A command by its name; a name that is none is a mistake of ours. */
export function named(list: Command[], id: string): Command {
  const found = list.find((command) => command.id === id);
  if (!found) throw new Error(`There is no command ${id}.`);
  return found;
}
