import { ChevronDown } from "lucide-react";
import { PopBox } from "../../ui/PopBox";
import { HandWaysFields } from "./HandWaysFields";

/** The ways of recording, behind the button beside the one that records. */
export function RecordWays() {
  return (
    <PopBox
      label="How it is recorded"
      title="What is recorded, where it goes, and how"
      look="btn btn-ghost btn-sm -ml-2 px-1"
      face={<ChevronDown size={14} aria-hidden="true" />}
    >
      <HandWaysFields />
    </PopBox>
  );
}
