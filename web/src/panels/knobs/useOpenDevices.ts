import { chainId, type Owner } from "../../state/catalogue";
import { openOf, useView, viewNow } from "../../state/view";

/** The devices of a chain whose knobs are seen. */
export function useOpenDevices(owner: Owner | undefined): string[] {
  const chain = owner ? chainId(owner) : "";
  useView((state) => state.openDevices[chain]);
  return openOf(chain, owner?.devices ?? [], viewNow());
}
