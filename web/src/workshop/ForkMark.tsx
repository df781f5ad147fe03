/** Prongs of which one is enough: they part at the first, the others come in below it. */
export function ForkMark({ isFirst }: { isFirst: boolean }) {
  return (
    <svg width="16" height="26" viewBox="0 0 16 26" role="img" aria-label="one of these is enough" className="fork">
      <path
        d={isFirst ? "M14 13 H5 V26" : "M5 0 V13 H14"}
        fill="none"
        stroke="var(--mark)"
        strokeWidth="2"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
      {isFirst && <circle cx="5" cy="13" r="3" fill="var(--mark)" />}
    </svg>
  );
}
