import { useSearchParams } from 'react-router';
import type { PumpsAsked } from '../api/fleetQueries';

type Sort = NonNullable<PumpsAsked['sort']>;

export const SORTS = {
  tag: 'tag',
  location: 'place',
  due: 'what falls due first',
  left: 'hours to the next inspection',
  overhauled: 'last overhaul',
} as const satisfies Record<Sort, string>;

/** What narrows the list, each by a word of the address. */
export const FILTERS = [
  ['due', '12', 'Due in twelve weeks'],
  ['bench', 'true', 'On the bench'],
  ['lent', 'true', 'On loan'],
  ['retired', 'true', 'Retired'],
] as const;

/** What the fleet is asked for stands in the address: it can be kept, sent to somebody, and gone back to. */
export function useFleetAsked() {
  const [params, setParams] = useSearchParams();
  const put = (name: string, value: string) =>
    setParams(
      (now) => {
        const next = new URLSearchParams(now);
        if (value) next.set(name, value);
        else next.delete(name);
        return next;
      },
      { replace: true },
    );
  const sort = params.get('sort') ?? '';
  const asked: PumpsAsked = {
    q: params.get('q') ?? '',
    sort: sort in SORTS ? (sort as Sort) : 'tag',
    retired: params.get('retired') === 'true',
  };
  if (params.get('due') === '12') asked.due = 12;
  if (params.get('bench') === 'true') asked.bench = true;
  if (params.get('lent') === 'true') asked.lent = true;
  const place = params.get('place');
  if (place) asked.place = place;
  const sheet = params.get('sheet');
  if (sheet) asked.sheet = sheet;
  return { asked, params, put };
}
