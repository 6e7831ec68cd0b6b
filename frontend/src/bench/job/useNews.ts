import { useIsMutating, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { Job } from '../../api/client';
import { versionQuery } from '../../api/queries';

/** Another's change to a job shows within seconds: a small question again and again, and the whole only when it has changed. */
export function useNews(number: number): void {
  const cache = useQueryClient();
  const { data } = useQuery(versionQuery(number));
  const isSaving = useIsMutating() > 0;
  useEffect(() => {
    // While something of one's own is on the way its answer brings the rest.
    if (!data || isSaving) return;
    const seen = cache.getQueriesData<Job>({ queryKey: ['job', number] });
    if (seen.some(([, job]) => job && job.version < data.version))
      void cache.invalidateQueries({ queryKey: ['job', number] });
  }, [cache, data, isSaving, number]);
}
