import type { InfiniteData, UseInfiniteQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Button } from 'react-bootstrap';
import { Loaded } from './Loading';

export interface Page<T> {
  lines: T[];
  more: boolean;
}

interface Props<T> {
  query: UseInfiniteQueryResult<InfiniteData<Page<T>>>;
  what: string;
  /** Said where there is nothing; while something is looked for, that it was not found is said instead. */
  empty: string;
  sought?: string;
  children: (lines: T[]) => ReactNode;
}

/** A list as far as it was asked for, and a button for the next page of it. */
export function Listed<T>({ query, what, empty, sought, children }: Props<T>) {
  return (
    <Loaded query={query} what={what}>
      {({ pages }) => {
        const lines = pages.flatMap((page) => page.lines);
        return (
          <>
            {lines.length > 0 ? (
              children(lines)
            ) : (
              <p className="quiet">{sought ? `Nothing with “${sought}” in it.` : empty}</p>
            )}
            {query.hasNextPage && (
              <Button
                variant="outline-primary"
                className="more"
                disabled={query.isFetchingNextPage}
                onClick={() => void query.fetchNextPage()}
              >
                More of {what}
              </Button>
            )}
          </>
        );
      }}
    </Loaded>
  );
}
