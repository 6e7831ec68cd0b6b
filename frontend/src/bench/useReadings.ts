import { useCallback } from 'react';
import { ApiError, newId, type Job } from '../api/client';
import { settle, useWaiting, type Waiting } from '../app/outbox';
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

interface Kept {
  entry: Entry;
  feature: string;
  phase: Phase;
}

export interface Failed extends Kept {
  error: Error;
}

function keptReading({ id, change, how }: Waiting): Kept {
  const { feature, phase, ...reading } = change as Omit<Entry, 'how'> & { feature: string; phase: Phase };
  return { entry: { ...reading, id, how: how as How }, feature, phase };
}

/**
 * Sends readings one after another as they are entered, however fast: a gauge that types does not wait for an answer.
 * Those that are asked about are kept, each with its question, until they are sent again or given up, also while another part is
 * on screen and after the page was loaded anew; `sent` are all the others, on the way.
 */
export function useReadings(job: Job, feature: string, phase: Phase) {
  const { send } = useChange('readings', job.number);
  const save = useCallback(
    async ({ how, ...reading }: Entry): Promise<void> => {
      await send({ ...reading, feature, phase }, how).catch(() => undefined);
    },
    [feature, phase, send],
  );
  const all = useWaiting().filter((w) => w.job === job.number && w.kind === 'readings');
  const here = (one: Kept) => one.feature === feature && one.phase === phase;
  const failed: Failed[] = all
    .flatMap((w) => (w.problem ? [{ ...keptReading(w), error: new ApiError(w.problem) }] : []))
    .filter(here);
  const sent = all
    .filter((w) => !w.problem)
    .map(keptReading)
    .filter(here)
    .map((k) => k.entry);
  const forget = useCallback((id: string) => void settle(id), []);
  return { save, failed, sent, forget };
}

export const newEntry = (given: Omit<Entry, 'id'>): Entry => ({ ...given, id: newId() });
