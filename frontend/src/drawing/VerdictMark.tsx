/** A verdict by shape first: closed ring, ring three-quarters closed, ring broken by a bar, dotted ring; an empty dash when open. */
export function VerdictMark({ verdict, size = 44 }: { verdict: string | null; size?: number }) {
  const ring = { cx: 22, cy: 22, r: 16, fill: 'none', strokeWidth: 7, className: `verdict-${slug(verdict)}` };
  return (
    <svg viewBox="0 0 44 44" width={size} height={size} aria-hidden="true" className="verdict-mark">
      {verdict === 'Keep' && <circle {...ring} />}
      {verdict === 'Watch' && <circle {...ring} strokeDasharray="75.4 25.1" transform="rotate(-90 22 22)" />}
      {verdict === 'Change' && (
        <>
          <circle {...ring} strokeDasharray="38.3 12" transform="rotate(-23 22 22)" />
          <path d="M22 1 V43" strokeWidth="7" className="verdict-change" />
        </>
      )}
      {verdict === 'Measure again' && <circle {...ring} strokeDasharray="5.2 7.36" />}
      {verdict === null && <path d="M8 22 H36" strokeWidth="4" className="verdict-open" />}
    </svg>
  );
}

function slug(verdict: string | null): string {
  return (verdict ?? 'open').toLowerCase().replace(' ', '-');
}

// eslint-disable-next-line react-refresh/only-export-components -- one source for the class of a verdict
export const verdictClass = (verdict: string | null): string => `verdict-text-${slug(verdict)}`;
