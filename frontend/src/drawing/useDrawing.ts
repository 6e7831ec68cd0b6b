import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useSyncExternalStore } from 'react';
import { client, unwrap, type Drawing, type Job } from '../api/client';
import { useUnit } from '../app/unit';

/** As in the styles: up to here two columns leave no room for names beside the numbers. */
const NARROW = window.matchMedia('(max-width: 1100px)');

function onTurn(tell: () => void) {
  NARROW.addEventListener('change', tell);
  return () => NARROW.removeEventListener('change', tell);
}

export function useScreen(): 'wide' | 'narrow' {
  return useSyncExternalStore(onTurn, () => (NARROW.matches ? 'narrow' : 'wide'));
}

/** The drawing of the job's pump, asked for once a sheet, build, unit and screen; `lost` when it could not be had. */
export function useDrawing(job: Job): { drawing: Drawing | undefined; lost: boolean } {
  const { unit } = useUnit();
  const screen = useScreen();
  const { number } = job;
  const { data, isError } = useQuery({
    queryKey: ['drawing', job.drawing, unit, screen],
    queryFn: () =>
      unwrap(
        client.GET('/api/jobs/{number}/drawing', { params: { path: { number }, query: { unit, screen } } }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: Infinity,
  });
  return { drawing: data, lost: isError && !data };
}
