import { useEffect, useRef } from 'react';

/** A ref for what is brought into sight whenever `what` comes or changes: an answer below the edge of the screen is none. */
export function useIntoView<T extends HTMLElement>(what: unknown) {
  const ref = useRef<T>(null);
  useEffect(() => {
    if (what) ref.current?.scrollIntoView({ block: 'nearest' });
  }, [what]);
  return ref;
}
