import { findParameter } from "../../state/catalogue";
import { useSong } from "../../state/song";

/** Names of parameters, each with whose it is. */
export function useNames(addresses: string[]): Record<string, string> {
  const catalogue = useSong((state) => state.catalogue);
  const model = useSong((state) => state.model);
  return Object.fromEntries(
    addresses.flatMap((address) => {
      const found = catalogue && findParameter(catalogue, model, address);
      return found ? [[address, `${found.entry.name} of ${found.owner.name}`]] : [];
    }),
  );
}
