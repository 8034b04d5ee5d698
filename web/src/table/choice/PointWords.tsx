import type { EnvelopePart } from "../../api/types";
import { commonOfPoints } from "../../commands/points";
import { ChoiceWords } from "./ChoiceWords";
import { PointValue } from "./PointValue";
import { ShapeMenu } from "./ShapeMenu";

interface Props {
  envelope: EnvelopePart;
  chosen: number[];
  /** Whether a span is chosen rather than points. */
  span: boolean;
}

/** The value of the chosen points, and what is done with them, or with a span, most. */
export function PointWords({ envelope, chosen, span }: Props) {
  return (
    <>
      {chosen.length > 0 && <PointValue envelope={envelope} chosen={chosen} />}
      {chosen.length > 0 && <ShapeMenu />}
      <ChoiceWords list={commonOfPoints(span)} subject={{ kind: "points" }} />
    </>
  );
}
