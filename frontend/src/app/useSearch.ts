import { useEffect, useState } from 'react';

const PAUSE_MS = 200;

/** What is typed into a search, and what is looked for: the same, once typing pauses. */
export function useSearch(begun = '') {
  const [typed, setTyped] = useState(begun);
  const [sought, setSought] = useState(begun);
  useEffect(() => {
    const timer = setTimeout(() => setSought(typed.trim()), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [typed]);
  return { typed, setTyped, sought };
}
