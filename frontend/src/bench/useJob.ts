import { useMutation, useQueryClient, type MutateOptions, type QueryClient } from '@tanstack/react-query';
import { useCallback, useRef } from 'react';
import { ApiError, client, csrfToken, unwrap, type Job } from '../api/client';
import type { components } from '../api/schema';
import { useUnit } from '../app/unit';
import { nowHere, useEntered, type Entered } from '../app/works';

type Schemas = components['schemas'];
type Body<T> = Omit<T, 'version' | keyof How>;

/** Every change that can be made to a job, by the path it is sent to. */
interface Changes {
  steps: Body<Schemas['MarkStepRequest']>;
  'steps/clear': Body<Schemas['ClearStepRequest']>;
  known: Body<Schemas['SetKnownRequest']>;
  'on-hand': Body<Schemas['SayOnHandRequest']>;
  looks: Body<Schemas['LookAtRequest']>;
  readings: Body<Schemas['RecordReadingRequest']>;
  'readings/set': Body<Schemas['RecordSetRequest']>;
  'photos/remove': Body<Schemas['RemovePhotoRequest']>;
  'readings/strike': Body<Schemas['StrikeReadingRequest']>;
  decisions: Body<Schemas['DecideRequest']>;
  parts: Body<Schemas['FitPartRequest']>;
  'parts/take-back': Body<Schemas['TakeBackPartRequest']>;
  torques: Body<Schemas['LogTorqueRequest']>;
  'torques/strike': Body<Schemas['StrikeTorqueRequest']>;
  'on-the-bench': Body<Schemas['UseAtBenchRequest']>;
  zero: Body<Schemas['SetZeroRequest']>;
  tries: Body<Schemas['RecordTryRequest']>;
  proofs: Body<Schemas['SeeProofRequest']>;
  'run-in': Body<Schemas['NoteRunInRequest']>;
  'run-in/take-back': Body<Schemas['TakeBackNoteRequest']>;
  'new-parts': Body<Schemas['ConfirmNewRequest']>;
  'new-parts/take-back': Body<Schemas['TakeBackNewRequest']>;
  meanwhile: Body<Schemas['ReadMeanwhileRequest']>;
  signature: Body<Schemas['SignRequest']>;
}

/**
 * A change to a job. Changes to one job go one after another, each from the version on screen; the answer is the whole job.
 * Each carries how it was typed, by whom and when, as it was at the press, however long it waits.
 * When somebody else saved in between, the sheet is read again and the error says who did what.
 */
export function useChange<K extends keyof Changes>(kind: K, number: number) {
  return useSent<Changes[K]>(number, (change, how, version) => {
    const post = client.POST as (path: string, options: object) => ReturnType<typeof client.POST>;
    return post(`/api/jobs/{number}/${kind}`, {
      params: { path: { number }, query: { unit: how.unit } },
      body: { ...change, ...how, version },
    }) as Promise<Sent>;
  });
}

interface Sent {
  data?: Job;
  error?: unknown;
  response: Response;
}

/** A photograph of a part or of a step. */
export interface NewPhoto {
  id: string;
  file: File;
  feature?: string;
  step?: string;
}

export function usePhoto(number: number) {
  return useSent<NewPhoto>(number, async (photo, how, version) => {
    const body = new FormData();
    for (const [name, value] of Object.entries({ ...photo, ...how, version }))
      body.append(name, value instanceof File ? value : String(value));
    const headers = { 'X-CSRFToken': csrfToken() };
    const response = await fetch(`/api/jobs/${number}/photos?unit=${how.unit}`, {
      method: 'POST',
      body,
      headers,
    });
    const told: unknown = await response.json().catch(() => undefined);
    return response.ok ? { data: told as Job, response } : { error: told, response };
  });
}

/** Asks the receiver of wireless gauges what one of them shows; nothing is recorded by it. */
export function usePull(number: number) {
  const { unit } = useUnit();
  return useMutation({
    retry: false,
    mutationFn: (body: Schemas['PullReadingRequest']) =>
      unwrap(client.POST('/api/jobs/{number}/pull', { params: { path: { number }, query: { unit } }, body })),
  });
}

/** The last version seen in either unit: just after the switch, the sheet on screen can be older than one's own last change. */
function lastSeen(cache: QueryClient, number: number): number {
  return Math.max(
    1,
    ...cache.getQueriesData<Job>({ queryKey: ['job', number] }).map(([, job]) => job?.version ?? 1),
  );
}

/** How a change was typed, and the moment it was pressed. */
export interface How extends Entered {
  at: string;
}

/** Tells how and when what is pressed now is pressed. */
export function useHow(): () => How {
  const entered = useEntered();
  return useCallback(() => ({ ...entered(), at: nowHere() }), [entered]);
}

interface Stamped<T> {
  change: T;
  how: How;
}

type Options<T> = MutateOptions<Job, Error, Stamped<T>>;

function useSent<T extends object>(
  number: number,
  send: (change: T, how: How, version: number) => Promise<Sent>,
) {
  const cache = useQueryClient();
  const now = useHow();
  const last = useRef<Options<T>>({});
  const mutation = useMutation<Job, Error, Stamped<T>>({
    scope: { id: `job-${number}` },
    mutationFn: ({ change, how }) => unwrap(send(change, how, lastSeen(cache, number))),
    onSuccess: async (job) => {
      // A sheet asked for before the change must not land on top of its answer, whose unit may have been switched since.
      const queryKey = ['job', number, job.unit];
      await cache.cancelQueries({ queryKey });
      cache.setQueryData(queryKey, job);
      void cache.invalidateQueries({
        queryKey: ['job', number],
        predicate: (q) => q.queryKey[2] !== job.unit,
      });
      void cache.invalidateQueries({ queryKey: ['jobs'] });
    },
    onError: (error) => {
      if (error instanceof ApiError && ['conflict', 'signed'].includes(error.details.code)) {
        void cache.invalidateQueries({ queryKey: ['job', number] });
      }
    },
  });
  const { mutate, mutateAsync, variables } = mutation;
  const again = (change: Partial<T>, how: Partial<How>) => {
    if (variables) {
      mutate({ change: { ...variables.change, ...change }, how: { ...variables.how, ...how } }, last.current);
    }
  };
  return {
    ...mutation,
    mutate: (change: T, options: Options<T> = {}) => {
      last.current = options;
      mutate({ change, how: now() }, options);
    },
    /** Sends a change typed at another moment, as it was typed then. */
    send: useCallback((change: T, how: How) => mutateAsync({ change, how }), [mutateAsync]),
    /** The last change once more: what was asked about is meant. */
    confirm: (reason?: string) =>
      again((reason === undefined ? {} : { reason }) as Partial<T>, { meant: true }),
  };
}
