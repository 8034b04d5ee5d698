import { type RefObject, useEffect } from "react";
import { type FieldName, setWishes, useWishes } from "../state/wishes";

/** Takes the keyboard when it is wished into this field. */
export function useField(name: FieldName | null, field: RefObject<HTMLInputElement | null>): void {
  const wished = useWishes((state) => name !== null && state.field === name);
  useEffect(() => {
    if (!wished) return;
    field.current?.focus();
    setWishes({ field: null });
  }, [wished, field]);
}
