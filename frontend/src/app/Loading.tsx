import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Button } from 'react-bootstrap';

interface Props<T> {
  query: UseQueryResult<T>;
  what: string;
  children: (data: T) => ReactNode;
}

/** Waiting, failed, or here: the three states of anything asked of the server. */
export function Loaded<T>({ query, what, children }: Props<T>) {
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

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
