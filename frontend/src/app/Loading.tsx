import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Button } from 'react-bootstrap';
import { capital } from './words';

interface Props<T> {
  query: UseQueryResult<T>;
  what: string;
  /** Said instead of an empty list. */
  empty?: string;
  children: (data: T) => ReactNode;
}

/** Waiting, failed, empty or here: the states of anything asked of the server. */
export function Loaded<T>({ query, what, empty, children }: Props<T>) {
  if (empty && Array.isArray(query.data) && query.data.length === 0) return <p className="blank">{empty}</p>;
  if (query.data !== undefined) return <>{children(query.data)}</>;
  if (query.isError) {
    return (
      <div className="blank" role="alert">
        <p>
          {capital(what)} could not be read. {query.error.message}
        </p>
        <Button onClick={() => void query.refetch()}>Try again</Button>
      </div>
    );
  }
  return (
    <div className="blank" role="status">
      Reading {what} …
    </div>
  );
}
