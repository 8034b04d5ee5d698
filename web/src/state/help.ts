import { create } from "zustand";
import { help } from "../api/client";
import type { Help } from "../api/types";
import { faultsSaid } from "./queue";

/** What the guide says of each panel, by its name; null until it was asked for. */
interface HelpState {
  open: boolean;
  topics: Help | null;
}

export const useHelp = create<HelpState>(() => ({ open: false, topics: null }));

/** Shows what the panels in view are for, or no longer. */
export async function turnHelp(): Promise<void> {
  const { open, topics } = useHelp.getState();
  if (open || topics) return useHelp.setState({ open: !open });
  const found = await faultsSaid(help);
  if (found) useHelp.setState({ open: true, topics: found });
}
