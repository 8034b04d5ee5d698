/** The mark of what is armed: a needle with its thread. */
export function Needle({ size = 14, threaded = false }: { size?: number; threaded?: boolean }) {
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" fill="none" stroke="currentColor" aria-hidden="true">
      <path d="M2.5 13.5L10.5 5.5" strokeWidth={1.8} strokeLinecap="round" />
      <ellipse cx={12} cy={4} rx={1.5} ry={2.6} transform="rotate(45 12 4)" strokeWidth={1.5} />
      {threaded && <path d="M12.4 3.6C15 7 9 9 12 12.5S8 15 7 13.5" strokeWidth={1.1} strokeDasharray="1.6 1.4" />}
    </svg>
  );
}
