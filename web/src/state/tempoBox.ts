import { create } from "zustand";

/** Whether a tempo that moves is being typed. */
export const useTempoBox = create<{ open: boolean }>(() => ({ open: false }));
export const showTempo = (): void => useTempoBox.setState({ open: true });
export const closeTempo = (): void => useTempoBox.setState({ open: false });
