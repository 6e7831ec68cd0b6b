import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { newId, type Job } from '../api/client';
import { useChange, type How } from './useJob';

type Phase = 'found' | 'left';

/** A reading on its way: kept until the server has it, so that nothing typed is lost. */
export interface Entry {
  id: string;
  station: string;
  typed: string;
  stops: string;
  part: string;
  material: string;
  gauge: string;
  taken: 'typed' | 'receiver';
  reason: string;
  /** How and when it was typed: it keeps its unit however long it waits. */
  how: How;
}

export interface Failed {
  entry: Entry;
  error: Error;
  feature: string;
  phase: Phase;
}

const unsavedKey = (number: number) => ['unsaved', number];

/** The readings of a job that could not be saved, whichever part is on screen. */
export function useUnsaved(number: number): Failed[] {
  const kept = useQuery<Failed[]>({
    queryKey: unsavedKey(number),
    queryFn: () => [],
    initialData: [],
    staleTime: Infinity,
    gcTime: Infinity,
  });
  return kept.data;
}

/**
 * Sends readings one after another as they are entered, however fast: a gauge that types does not wait for an answer.
 * Those that fail are kept, each with its error, until they are sent again or given up, also while another part is on screen;
 * `sent` are all the others, on the way or there.
 */
export function useReadings(job: Job, feature: string, phase: Phase) {
  const record = useChange('readings', job.number);
  const cache = useQueryClient();
  const unsaved = useUnsaved(job.number);
  const [sent, setSent] = useState<Entry[]>([]);
  const { send } = record;
  const { number } = job;

  const keep = useCallback(
    (change: (now: Failed[]) => Failed[]) =>
      cache.setQueryData<Failed[]>(unsavedKey(number), (now) => change(now ?? [])),
    [cache, number],
  );
  const forget = useCallback((id: string) => keep((now) => now.filter((f) => f.entry.id !== id)), [keep]);
  const save = useCallback(
    async (entry: Entry): Promise<Job | null> => {
      forget(entry.id);
      setSent((now) => [...now.filter((e) => e.id !== entry.id), entry]);
      try {
        const { how, ...reading } = entry;
        return await send({ ...reading, feature, phase }, how);
      } catch (error) {
        keep((now) => [...now, { entry, error: error as Error, feature, phase }]);
        setSent((now) => now.filter((e) => e.id !== entry.id));
        return null;
      }
    },
    [feature, phase, send, forget, keep],
  );
  const failed = unsaved.filter((f) => f.feature === feature && f.phase === phase);
  return { save, failed, sent, forget };
}

export const newEntry = (given: Omit<Entry, 'id'>): Entry => ({ ...given, id: newId() });
