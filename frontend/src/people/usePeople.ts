import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { People } from '../api/client';
import { peopleQuery } from '../api/queries';

/** A change to people; its answer is everybody as they are now. */
export function usePeople<T>(send: (given: T) => Promise<People>) {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: send,
    retry: false,
    onSuccess: (people) => cache.setQueryData(peopleQuery.queryKey, people),
  });
}
