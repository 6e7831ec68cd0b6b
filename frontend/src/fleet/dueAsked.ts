import { useEffect } from 'react';
import type { DueAsked } from '../api/fleetQueries';
import { useAddress } from '../app/useAddress';
import { useSearch } from '../app/useSearch';

/** What falls due: its key, what many of it are called, and one. */
export const KINDS = [
  ['inspection', 'Inspections', 'inspection'],
  ['service', 'Service by hours', 'service by hours'],
  ['kit', 'Parts to order', 'parts to order'],
  ['calibration', 'Calibrations', 'calibration'],
] as const;

/** What the page is asked for. */
export function useDueAsked() {
  const { params, put } = useAddress();
  const kind = KINDS.find(([key]) => key === params.get('kind'))?.[0];
  const asked: DueAsked = { q: params.get('q') ?? '' };
  if (kind) asked.kind = kind;
  const place = params.get('place');
  if (place) asked.place = place;
  if (params.get('undated') === 'true') asked.undated = true;
  return { asked, put };
}

/** Words typed, which the address follows once typing pauses. */
export function useWordsIn(kept: string, put: (name: string, value: string) => void) {
  const { typed, setTyped, sought } = useSearch(kept);
  useEffect(() => {
    if (sought !== kept) put('q', sought);
    // What was typed leads; the address follows it, and nothing else writes it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [sought]);
  return { typed, setTyped };
}
