import type { PumpsAsked } from '../api/fleetQueries';
import { useAddress } from '../app/useAddress';

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

/** What the fleet is asked for. */
export function useFleetAsked() {
  const { params, put } = useAddress();
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
