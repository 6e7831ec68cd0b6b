import { useCallback, useLayoutEffect, useRef } from 'react';

/** What is on screen for less than this has not been read. */
const UNREAD_MS = 400;

/**
 * Tells whether what this component shows came up only a moment ago: a double press must not acknowledge, or tick, what takes
 * the place of what it was meant for.
 */
export function useUnread(): () => boolean {
  const shownAt = useRef(Infinity);
  useLayoutEffect(() => {
    shownAt.current = performance.now();
  }, []);
  return useCallback(() => performance.now() - shownAt.current < UNREAD_MS, []);
}
