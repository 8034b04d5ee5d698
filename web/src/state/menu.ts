import { create } from "zustand";
import type { Px } from "../api/types";

/** What a command is about: what is chosen, or one thing by its name. */
export type Subject =
  | { kind: "studio" | "bars" | "regions" | "points" | "notes" }
  | { kind: "envelope"; envelopeId: string }
  | { kind: "knob"; address: string }
  | { kind: "device"; chain: string; deviceId: string }
  | { kind: "track"; trackId: string }
  | { kind: "marker"; markerId: string };

export type Kind = Subject["kind"];

/** The menu of a right or long press: what it is about, and where on the screen; null for none. */
export const useMenu = create<{ menu: { subject: Subject; x: Px; y: Px } | null }>(() => ({ menu: null }));

export const openMenu = (subject: Subject, x: Px, y: Px): void => useMenu.setState({ menu: { subject, x, y } });
export const closeMenu = (): void => useMenu.setState({ menu: null });
