import { useCallback, useState } from 'react';
import { newId, type Job } from '../api/client';
import { useChange } from './useJob';

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
}

interface Failed {
  entry: Entry;
  error: Error;
}

/**
 * Sends readings one after another as they are entered, however fast: a gauge that types does not wait for an answer.
 * One that fails is kept with its error until it is sent again or given up; `sent` are all the others, on the way or there.
 */
export function useReadings(job: Job, feature: string, phase: 'found' | 'left') {
  const record = useChange('readings', job.number);
  const [failed, setFailed] = useState<Failed | null>(null);
  const [sent, setSent] = useState<Entry[]>([]);
  const send = record.mutateAsync;

  const save = useCallback(
    async (entry: Entry, confirmed = false): Promise<Job | null> => {
      setFailed(null);
      setSent((now) => [...now.filter((e) => e.id !== entry.id), entry]);
      try {
        return await send({ ...entry, feature, phase, confirmed });
      } catch (error) {
        setFailed({ entry, error: error as Error });
        setSent((now) => now.filter((e) => e.id !== entry.id));
        return null;
      }
    },
    [feature, phase, send],
  );
  return { save, failed, sent, forget: useCallback(() => setFailed(null), []) };
}

export const newEntry = (given: Omit<Entry, 'id'>): Entry => ({ ...given, id: newId() });
