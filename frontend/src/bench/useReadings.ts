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
 * One that fails is kept with its error until it is sent again or given up.
 */
export function useReadings(job: Job, feature: string, phase: 'found' | 'left') {
  const record = useChange('readings', job.number);
  const [failed, setFailed] = useState<Failed | null>(null);
  const [waiting, setWaiting] = useState<string[]>([]);
  const send = record.mutateAsync;

  const save = useCallback(
    async (entry: Entry, confirmed = false): Promise<Job | null> => {
      setFailed(null);
      setWaiting((now) => [...now, entry.station]);
      try {
        return await send({ ...entry, feature, phase, confirmed });
      } catch (error) {
        setFailed({ entry, error: error as Error });
        return null;
      } finally {
        setWaiting((now) => {
          const at = now.indexOf(entry.station);
          return now.filter((_, i) => i !== at);
        });
      }
    },
    [feature, phase, send],
  );
  return { save, failed, waiting, forget: useCallback(() => setFailed(null), []) };
}

export const newEntry = (given: Omit<Entry, 'id'>): Entry => ({ ...given, id: newId() });
