import { create } from "zustand";

/** The bar whose time signature is being typed, on the bar numbers; null when none is. */
export const useSignature = create<{ bar: number | null }>(() => ({ bar: null }));
export const typeSignature = (bar: number | null): void => useSignature.setState({ bar });
