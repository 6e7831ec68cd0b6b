import { useCallback, useState } from 'react';
import { ApiError, newId, type Job } from '../../api/client';
import { settle, useWaiting, type Waiting } from '../../app/outbox';
import { useChange, type How } from '../job/useJob';

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
  taken: 'typed' | 'receiver' | 'paper';
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
 * on screen and after the page was loaded anew; `sent` are all the others, on the way or there.
 */
export function useReadings(job: Job, feature: string, phase: Phase) {
  const { send } = useChange('readings', job.number);
  // An answer takes a reading out of what waits a moment before the sheet shows it: in that moment it must not be nowhere, or the
  // next number would land on its station.
  const [entered, setEntered] = useState<Entry[]>([]);
  const save = useCallback(
    async (entry: Entry): Promise<void> => {
      const { how, ...reading } = entry;
      setEntered((now) => [...now.filter((e) => e.id !== entry.id), entry]);
      await send({ ...reading, feature, phase }, how).catch(() => {
        setEntered((now) => now.filter((e) => e.id !== entry.id));
      });
    },
    [feature, phase, send],
  );
  const all = useWaiting().filter((w) => w.job === job.number && w.kind === 'readings');
  const here = (one: Kept) => one.feature === feature && one.phase === phase;
  const failed: Failed[] = all
    .flatMap((w) => (w.problem ? [{ ...keptReading(w), error: new ApiError(w.problem) }] : []))
    .filter(here);
  const waiting = all
    .filter((w) => !w.problem)
    .map(keptReading)
    .filter(here)
    .map((k) => k.entry);
  const held = new Set([...waiting, ...failed.map((f) => f.entry)].map((e) => e.id));
  const sent = [...waiting, ...entered.filter((e) => !held.has(e.id))];
  const forget = useCallback((id: string) => void settle(id), []);
  return { save, failed, sent, forget };
}

export const newEntry = (given: Omit<Entry, 'id'>): Entry => ({ ...given, id: newId() });
