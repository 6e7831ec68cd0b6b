import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { isAnythingWaiting, takeOver, useWaiting } from '../../app/outbox';
import { useWorks } from '../../app/works';
import { resend, type How, type Kind } from './useJob';

/** Sends what the person at this page left waiting on this device, in its order; and asks before a page with something unsaved is left. */
export function useLeftWaiting(): void {
  const cache = useQueryClient();
  const { person } = useWorks();
  useEffect(() => {
    void takeOver(person).then((left) => {
      for (const w of left.filter((one) => !one.problem))
        void resend(cache, w.job, w.kind as Kind, {
          id: w.id,
          change: w.change,
          how: w.how as How,
          version: w.version,
        });
    });
  }, [cache, person]);
  useEffect(() => {
    const ask = (event: BeforeUnloadEvent) => {
      if (isAnythingWaiting() || isAnythingTyped() || cache.isMutating() > 0) event.preventDefault();
    };
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [cache]);
}

/** A number begun at a pad, and not entered. */
const isAnythingTyped = () =>
  [...document.querySelectorAll<HTMLInputElement>('input[data-pad]')].some(
    (input) => input.value.trim() !== '',
  );

/** A save takes a moment: only what waits longer is said to wait. */
const SOON_MS = 1_500;

/** How many changes have waited longer than a save takes. */
export function useLongWaiting(): number {
  const waiting = useWaiting().filter((w) => !w.problem).length;
  const [since, setSince] = useState(false);
  const any = waiting > 0;
  useEffect(() => {
    const timer = setTimeout(() => setSince(any), any ? SOON_MS : 0);
    return () => clearTimeout(timer);
  }, [any]);
  return any && since ? waiting : 0;
}
