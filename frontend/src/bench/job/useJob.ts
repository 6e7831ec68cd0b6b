import { useMutation, useQueryClient, type MutateOptions, type QueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef } from 'react';
import {
  ApiError,
  client,
  answered,
  newId,
  Unreachable,
  unwrap,
  type Job,
  type JobAnswer,
} from '../../api/client';
import { heldBy, joined } from '../../api/sections';
import type { components } from '../../api/schema';
import { ask, keep, settle } from '../../app/outbox';
import { useUnit } from '../../app/unit';
import { nowHere, useEntered, type Entered } from '../../app/works';
import { saidOf } from './saidOf';

type Schemas = components['schemas'];
type Body<T> = Omit<T, 'version' | keyof How>;

/** Every change that can be made to a job, by the path it is sent to. */
interface Changes {
  steps: Body<Schemas['MarkStepRequest']>;
  details: Body<Schemas['SetDetailsRequest']>;
  'on-hand': Body<Schemas['SayOnHandRequest']>;
  looks: Body<Schemas['LookAtRequest']>;
  readings: Body<Schemas['RecordReadingRequest']>;
  'readings/set': Body<Schemas['RecordSetRequest']>;
  'photos/remove': Body<Schemas['RemovePhotoRequest']>;
  decisions: Body<Schemas['DecideRequest']>;
  parts: Body<Schemas['FitPartRequest']>;
  torques: Body<Schemas['LogTorqueRequest']>;
  'on-the-bench': Body<Schemas['UseAtBenchRequest']>;
  zero: Body<Schemas['SetZeroRequest']>;
  tries: Body<Schemas['RecordTryRequest']>;
  proofs: Body<Schemas['SeeProofRequest']>;
  'run-in': Body<Schemas['NoteRunInRequest']>;
  'new-parts': Body<Schemas['ConfirmNewRequest']>;
  meanwhile: Body<Schemas['ReadMeanwhileRequest']>;
  strike: Body<Schemas['StrikeOutRequest']>;
  photos: NewPhoto;
  signature: Body<Schemas['SignRequest']>;
  abandon: Body<Schemas['AbandonRequest']>;
  amendments: Body<Schemas['AmendRequest']>;
}

export type Kind = keyof Changes;

/** A photograph of a part or of a step. */
export interface NewPhoto {
  id: string;
  file: File;
  feature?: string;
  step?: string;
}

interface Sent {
  data?: JobAnswer;
  error?: unknown;
  response: Response;
}

async function post(
  number: number,
  kind: Kind,
  change: object,
  how: How,
  version: number,
  held: { Held: string },
): Promise<Sent> {
  if (kind !== 'photos') {
    const send = client.POST as (path: string, options: object) => ReturnType<typeof client.POST>;
    return send(`/api/jobs/{number}/${kind}`, {
      params: { path: { number }, query: { unit: how.unit }, header: held },
      body: { ...change, ...how, version },
    }) as Promise<Sent>;
  }
  const body = new FormData();
  for (const [name, value] of Object.entries({ ...change, ...how, version }))
    body.append(name, (value as unknown) instanceof Blob ? (value as unknown as Blob) : String(value));
  return answered<JobAnswer>(`/api/jobs/${number}/photos?unit=${how.unit}`, body, held);
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

/** A change as it was pressed: what, how, when, and from which version on screen. */
export interface Stamped<T = object> {
  id: string;
  change: T;
  how: How;
  version: number;
}

/** These are done face to face with the server: they carry a PIN, or end the job. */
const NOT_KEPT: readonly Kind[] = ['signature', 'abandon', 'amendments'];

const isKept = (kind: Kind, change: object) => !NOT_KEPT.includes(kind) && !('pin' in change && change.pin);

/** Whether a change still waits for an answer: the server was not reached, or the session has ended. */
const isWaiting = (error: Error) =>
  error instanceof Unreachable || (error instanceof ApiError && error.details.code === 'signed-out');

/** How a change to a job is sent, from a screen or from what a page before left waiting. `isShown` when a form shows the answer. */
export function sending(cache: QueryClient, number: number, kind: Kind, isShown: () => boolean) {
  return {
    scope: { id: `job-${number}` },
    mutationFn: async ({ id, change, how, version }: Stamped) => {
      const kept = isKept(kind, change);
      const from = kept ? version : lastSeen(cache, number);
      const before = cache.getQueryData<Job>(['job', number, how.unit]);
      const job = joined(before, await unwrap(post(number, kind, change, how, from, heldBy(before))));
      if (kept) {
        // The sheet first: what was on the way must not be nowhere for a moment.
        await show(cache, number, job);
        await settle(id);
      }
      return job;
    },
    onSuccess: (job: Job) => show(cache, number, job),
    onError: async (error: Error, { id }: Stamped) => {
      if (error instanceof ApiError && ['conflict', 'signed'].includes(error.details.code)) {
        void cache.invalidateQueries({ queryKey: ['job', number] });
      }
      if (isWaiting(error)) return;
      // What was asked where nobody looks any more waits until somebody does.
      if (error instanceof ApiError && (kind === 'readings' || !isShown())) await ask(id, error.details);
      else await settle(id);
    },
  };
}

async function show(cache: QueryClient, number: number, job: Job) {
  // A sheet asked for before the change must not land on top of its answer, whose unit may have been switched since.
  const queryKey = ['job', number, job.unit];
  await cache.cancelQueries({ queryKey });
  cache.setQueryData(queryKey, job);
  void cache.invalidateQueries({
    queryKey: ['job', number],
    predicate: (q) => q.queryKey[2] !== job.unit,
  });
  void cache.invalidateQueries({ queryKey: ['jobs'] });
}

type Options<T> = MutateOptions<Job, Error, Stamped<T>>;

/**
 * A change to a job. Changes to one job go one after another, each from the version on screen; the answer is the whole job.
 * Each carries how it was typed, by whom and when, as it was at the press, however long it waits, and is kept on this device until
 * the server has it. When somebody else changed the same in between, the sheet is read again and the error says who did what.
 */
export function useChange<K extends Kind>(kind: K, number: number) {
  type T = Changes[K];
  const cache = useQueryClient();
  const now = useHow();
  const last = useRef<Options<T>>({});
  const isShown = useShown();
  const mutation = useMutation<Job, Error, Stamped<T>>(sending(cache, number, kind, isShown) as never);
  const { mutate, mutateAsync, variables } = mutation;
  const stamp = useCallback(
    (change: T, how: How): Stamped<T> => {
      const id = 'id' in change && typeof change.id === 'string' ? change.id : newId();
      const stamped = { id, change, how, version: lastSeen(cache, number) };
      if (isKept(kind, change)) {
        const said = saidOf(kind, change, cache.getQueryData<Job>(['job', number, how.unit]));
        void keep({ ...stamped, person: how.person, job: number, kind, said });
      }
      return stamped;
    },
    [cache, kind, number],
  );
  const again = (change: Partial<T>, how: Partial<How>) => {
    if (variables)
      mutate(stamp({ ...variables.change, ...change }, { ...variables.how, ...how }), last.current);
  };
  return {
    ...mutation,
    /** What was said against it; while it is tried again, why. */
    error: mutation.error ?? (mutation.isPending ? mutation.failureReason : null),
    mutate: (change: T, options: Options<T> = {}) => {
      last.current = options;
      mutate(stamp(change, now()), options);
    },
    /** Sends a change typed at another moment, as it was typed then. */
    send: useCallback((change: T, how: How) => mutateAsync(stamp(change, how)), [mutateAsync, stamp]),
    /** The last change once more: what was asked about is meant. */
    confirm: (reason?: string) =>
      again((reason === undefined ? {} : { reason }) as Partial<T>, { meant: true }),
  };
}

/** Tells whether this component is still on screen. */
function useShown(): () => boolean {
  const shown = useRef(true);
  useEffect(() => {
    shown.current = true;
    return () => {
      shown.current = false;
    };
  }, []);
  return useCallback(() => shown.current, []);
}

/** Sends again what waits, as it was pressed; nobody looks at its answer but the list of what waits. */
export async function resend(
  cache: QueryClient,
  number: number,
  kind: Kind,
  stamped: Stamped,
): Promise<void> {
  const options = cache.defaultMutationOptions(sending(cache, number, kind, () => false));
  await cache
    .getMutationCache()
    .build(cache, options)
    .execute(stamped)
    .catch(() => undefined);
}
