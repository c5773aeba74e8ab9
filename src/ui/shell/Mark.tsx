/** Mirvak's mark: a cut groove seen from the end, a smaller one inside it. */
export function Mark({ size = 30 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 32 32" fill="none" aria-hidden="true">
      <path d="M3 6h26L16 28z" stroke="var(--mui-palette-text-primary)" strokeWidth="2.4" strokeLinejoin="round" />
      <path d="M10.5 6 16 15.5 21.5 6" stroke="var(--mui-palette-brass)" strokeWidth="2.4" strokeLinejoin="round" />
    </svg>
  );
}
