import type { ReactNode } from "react";

interface IconProps {
  label: string;
  off?: boolean;
  onPress: () => void;
  children: ReactNode;
}

/** A button that shows an icon alone. */
export function IconButton({ label, off = false, onPress, children }: IconProps) {
  return (
    <button
      type="button"
      className="btn btn-ghost btn-sm btn-square"
      disabled={off}
      aria-label={label}
      title={label}
      onClick={onPress}
    >
      {children}
    </button>
  );
}
