import { useMutation, useQueryClient } from '@tanstack/react-query';
import { ApiError, client, unwrap, type Job } from '../api/client';
import type { components } from '../api/schema';
import { useUnit } from '../app/unit';

type Schemas = components['schemas'];
type Body<T> = Omit<T, 'version'>;

/** Every change that can be made to a job, by the path it is sent to. */
interface Changes {
  steps: Body<Schemas['MarkStepRequest']>;
  'steps/clear': Body<Schemas['ClearStepRequest']>;
  readings: Body<Schemas['RecordReadingRequest']>;
  'readings/strike': Body<Schemas['StrikeReadingRequest']>;
  decisions: Body<Schemas['DecideRequest']>;
  zero: Body<Schemas['SetZeroRequest']>;
  tries: Body<Schemas['RecordTryRequest']>;
  signature: Body<Schemas['SignRequest']>;
}

/**
 * A change to a job. Changes to one job go one after another, each from the version on screen; the answer is the whole job.
 * When somebody else saved in between, the sheet is read again and the error says who did what.
 */
export function useChange<K extends keyof Changes>(kind: K, number: number) {
  const { unit } = useUnit();
  const cache = useQueryClient();
  return useMutation<Job, Error, Changes[K]>({
    scope: { id: `job-${number}` },
    mutationFn: (change) => {
      const version = cache.getQueryData<Job>(['job', number, unit])?.version ?? 1;
      const post = client.POST as (path: string, options: object) => ReturnType<typeof client.POST>;
      return unwrap(
        post(`/api/jobs/{number}/${kind}`, {
          params: { path: { number }, query: { unit } },
          body: { ...change, version },
        }) as Promise<{ data?: Job; error?: unknown; response: Response }>,
      );
    },
    onSuccess: (job) => {
      cache.setQueryData(['job', number, unit], job);
      void cache.invalidateQueries({ queryKey: ['job', number], predicate: (q) => q.queryKey[2] !== unit });
      void cache.invalidateQueries({ queryKey: ['jobs'] });
    },
    onError: (error) => {
      if (error instanceof ApiError && ['conflict', 'signed'].includes(error.details.code)) {
        void cache.invalidateQueries({ queryKey: ['job', number] });
      }
    },
  });
}
