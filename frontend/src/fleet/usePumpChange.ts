import { useQueryClient } from '@tanstack/react-query';
import type { PumpDetail, Unit } from '../api/client';
import { useTyped } from '../app/useTyped';
import type { Entered } from '../app/works';

interface At {
  params: { path: { tag: string }; query: { unit: Unit } };
}

/** A change to a pump, after which its page is read anew: not kept from the answer, whose unit may have been switched since. */
export function usePumpChange<T extends object>(
  tag: string,
  send: (body: T & Entered, at: At) => Promise<{ data?: PumpDetail; error?: unknown; response: Response }>,
) {
  const cache = useQueryClient();
  return useTyped<T, PumpDetail>(
    (body) => send(body, { params: { path: { tag }, query: { unit: body.unit } } }),
    () => {
      void cache.invalidateQueries({ queryKey: ['pumps'] });
      return cache.invalidateQueries({ queryKey: ['pump', tag] });
    },
  );
}
