import type { Piece } from '../../api/client';
import type { TryPart } from '../means/kinds';
import { isOther, StackCounts, useStack } from './StackCounts';

/** One of two stacks that share a shelf: what it is called, what is in it now, and what is next. */
export interface OfTwo {
  legend: string;
  now: Piece[];
  next: Piece[];
}

/** A try of a means with two stacks, counted out from one shelf. */
export function useTwoStacks(slug: string, box: Piece[], first: OfTwo, second: OfTwo): TryPart {
  const one = useStack(first.next);
  const other = useStack(second.next);
  const now = [...first.now, ...second.now];
  return {
    above: (
      <>
        <StackCounts slug={slug} legend={first.legend} stack={one} now={now} box={box} taken={other.counts} />
        <StackCounts
          slug={slug}
          legend={second.legend}
          stack={other}
          now={now}
          box={box}
          taken={one.counts}
        />
      </>
    ),
    moved: '',
    way: '',
    stacks_um: [one.pieces, other.pieces],
    isChanged: isOther(first.now, one.pieces) || isOther(second.now, other.pieces),
  };
}
