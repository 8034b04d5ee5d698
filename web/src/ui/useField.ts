import { type RefObject, useEffect } from "react";
import { type FieldName, setWishes, useWishes, wishesNow } from "../state/wishes";

/** Takes the keyboard when it is wished into this field; `type` is given what was typed already. */
export function useField(
  name: FieldName | null,
  field: RefObject<HTMLInputElement | null>,
  type?: (text: string) => void,
): void {
  const wished = useWishes((state) => name !== null && state.field === name);
  useEffect(() => {
    if (!wished) return;
    field.current?.focus();
    const { typed } = wishesNow();
    if (typed !== null) type?.(typed);
    setWishes({ field: null, typed: null });
  }, [wished, field, type]);
}
