import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Button } from 'react-bootstrap';
import { moment } from './time';
import { capital } from './words';

interface Props<T> {
  query: UseQueryResult<T>;
  what: string;
  /** Said instead of an empty list. */
  empty?: string;
  children: (data: T) => ReactNode;
}

/** Waiting, failed, empty or here: the states of anything asked of the server. What is not what was asked for says so. */
export function Loaded<T>({ query, what, empty, children }: Props<T>) {
  if (query.data !== undefined) {
    const isEmpty = empty && Array.isArray(query.data) && query.data.length === 0;
    return (
      <>
        <NotAsAsked query={query} what={what} />
        {isEmpty ? <p className="blank">{empty}</p> : children(query.data)}
      </>
    );
  }
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

/** Over what was shown before: while something else was asked for, and where it could not be read anew. It moves nothing. */
function NotAsAsked({ query, what }: { query: UseQueryResult<unknown>; what: string }) {
  if (query.isPlaceholderData)
    return (
      <p className="not-as-asked other" role="status">
        <span>
          {query.failureCount > 0
            ? 'The server does not answer. Below is what was asked for before.'
            : `Reading ${what} …`}
        </span>
      </p>
    );
  if (!query.isRefetchError) return null;
  return (
    <p className="not-as-asked" role="status">
      <span>
        As it was on {moment(new Date(query.dataUpdatedAt).toISOString())}. {query.error.message}
      </span>
    </p>
  );
}
