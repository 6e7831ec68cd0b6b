import { useState } from 'react';
import { Link } from 'react-router';
import type { Piece } from '../../api/client';
import { useUnit } from '../../app/unit';

/** A stack being counted out: how many of each thickness, and the same piece by piece. */
export interface Counting {
  counts: Record<number, number>;
  set: (counts: Record<number, number>) => void;
  pieces: number[];
}

// eslint-disable-next-line react-refresh/only-export-components -- a hook belongs beside its component
export function useStack(next: Piece[]): Counting {
  const [counts, set] = useState<Record<number, number>>(() =>
    Object.fromEntries(next.map((p) => [p.um, p.count])),
  );
  const pieces = Object.entries(counts).flatMap(([um, n]) => Array.from({ length: n }, () => Number(um)));
  return { counts, set, pieces };
}

/** Whether a stack is another than what is in the pump, whatever the order it is counted in. */
// eslint-disable-next-line react-refresh/only-export-components -- it belongs beside what it compares
export function isOther(now: Piece[], pieces: number[]): boolean {
  const before = now.flatMap((p) => Array.from({ length: p.count }, () => p.um));
  const sorted = (all: number[]) => [...all].sort((a, b) => a - b).join();
  return sorted(before) !== sorted(pieces);
}

interface Props {
  legend: string;
  /** Of the sheet whose shelf it is. */
  slug: string;
  stack: Counting;
  /** What is fitted now, of all places that share the shelf. */
  now: Piece[];
  box: Piece[];
  /** What another place takes of the same shelf. */
  taken?: Record<number, number>;
}

/** How many of each thickness are in; more cannot be put in than shelf and pump have. */
export function StackCounts({ legend, slug, stack, now, box, taken = {} }: Props) {
  const { unit } = useUnit();
  const fitted = (um: number) => now.filter((p) => p.um === um).reduce((sum, p) => sum + p.count, 0);
  return (
    <fieldset className="stack-counts">
      <legend>
        {legend} ({unit})
      </legend>
      {box.map((line) => {
        const have = line.count + fitted(line.um) - (taken[line.um] ?? 0);
        const used = stack.counts[line.um] ?? 0;
        const set = (n: number) => stack.set({ ...stack.counts, [line.um]: Math.min(Math.max(n, 0), have) });
        return (
          <div key={line.um} className="counter">
            <span>{line.text}</span>
            <button
              type="button"
              aria-label={`one less of ${line.text}, ${legend}`}
              disabled={used === 0}
              onClick={() => set(used - 1)}
            >
              −
            </button>
            <output aria-label={`${line.text}, ${legend}`}>{used}</output>
            <button
              type="button"
              aria-label={`one more of ${line.text}, ${legend}`}
              disabled={used >= have}
              onClick={() => set(used + 1)}
            >
              +
            </button>
            <small>of {have}</small>
          </div>
        );
      })}
      <Link className="count-shelf" to={`/toolbox?sheet=${slug}`}>
        {box.length ? 'The shelf has another count' : 'Nothing is counted: count the shelf'}
      </Link>
    </fieldset>
  );
}
