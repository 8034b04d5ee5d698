import { Carry, Loop } from "../table/Carry";
import { Away } from "../ui/Away";
import { useNarrow } from "../ui/useNarrow";
import { Desk } from "./Desk";
import { useKeys } from "./keys";
import { Phone } from "./Phone";

export function Studio() {
  useKeys();
  const narrow = useNarrow();
  return (
    <>
      {narrow ? <Phone /> : <Desk />}
      <Carry />
      <Loop />
      <Away />
    </>
  );
}
