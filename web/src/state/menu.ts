import { create } from "zustand";
import type { Px } from "../api/types";

/** What a menu is about. */
export type Kind = "regions" | "points" | "bars";

/** The menu of a right or long press: what it is about, and where on the screen; null for none. */
export const useMenu = create<{ menu: { kind: Kind; x: Px; y: Px } | null }>(() => ({ menu: null }));

export const openMenu = (kind: Kind, x: Px, y: Px): void => useMenu.setState({ menu: { kind, x, y } });
export const closeMenu = (): void => useMenu.setState({ menu: null });
