import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { client, unwrap, type Unit } from './client';
import { listQuery, ofTheSame } from './queries';
import type { paths } from './schema';

type PumpsQuery = NonNullable<paths['/api/pumps']['get']['parameters']['query']>;

/** What a list of pumps is asked for, but for its page and unit. */
export type PumpsAsked = Omit<PumpsQuery, 'page' | 'unit' | 'free'>;

export const pumpsQuery = (unit: Unit, asked: PumpsAsked) =>
  listQuery(['pumps', unit, asked], (page) =>
    unwrap(client.GET('/api/pumps', { params: { query: { ...asked, unit, page } } })),
  );

/** The drawing of a pump as it is built. */
export const pumpDrawingQuery = (tag: string, unit: Unit, screen: 'wide' | 'narrow') =>
  queryOptions({
    queryKey: ['pump', tag, 'drawing', unit, screen],
    queryFn: () =>
      unwrap(client.GET('/api/pumps/{tag}/drawing', { params: { path: { tag }, query: { unit, screen } } })),
    staleTime: 300_000,
  });

/** How a part of a pump wears, every one that was fitted. */
export const pumpWearQuery = (tag: string, feature: string, unit: Unit) =>
  queryOptions({
    queryKey: ['pump', tag, 'wear', feature, unit],
    queryFn: () =>
      unwrap(
        client.GET('/api/pumps/{tag}/wear/{feature}', {
          params: { path: { tag, feature }, query: { unit } },
        }),
      ),
    placeholderData: ofTheSame('pump', tag, 'wear', feature),
  });

export const lifeQuery = (tag: string, unit: Unit) =>
  listQuery(['pump', tag, 'life', unit], (page) =>
    unwrap(client.GET('/api/pumps/{tag}/life', { params: { path: { tag }, query: { unit, page } } })),
  );

export const overhaulsQuery = (tag: string, unit: Unit) =>
  listQuery(['pump', tag, 'overhauls', unit], (page) =>
    unwrap(client.GET('/api/pumps/{tag}/overhauls', { params: { path: { tag }, query: { unit, page } } })),
  );

export const pumpPhotosQuery = (tag: string) =>
  listQuery(['pump', tag, 'photos'], (page) =>
    unwrap(client.GET('/api/pumps/{tag}/photos', { params: { path: { tag }, query: { page } } })),
  );

/** Where the code of a label leads. */
export const labelQuery = (code: string) =>
  queryOptions({
    queryKey: ['label', code],
    queryFn: () => unwrap(client.GET('/api/labels/{code}', { params: { path: { code } } })),
    gcTime: 0,
    retry: false,
  });

type DueQuery = NonNullable<paths['/api/due']['get']['parameters']['query']>;

/** What the list of what falls due is asked for. */
export type DueAsked = Omit<DueQuery, 'page'>;

export const dueQuery = (asked: DueAsked) =>
  listQuery(['due', asked], (page) =>
    unwrap(client.GET('/api/due', { params: { query: { ...asked, page } } })),
  );

export const aheadQuery = (asked: Pick<DueAsked, 'q' | 'kind' | 'place'>) =>
  queryOptions({
    queryKey: ['due', 'ahead', asked],
    queryFn: () => unwrap(client.GET('/api/due/ahead', { params: { query: asked } })),
    placeholderData: keepPreviousData,
    refetchInterval: (query) => (query.state.data?.behind ? 3_000 : false),
  });

/** Links for people without an account. */
export const linksQuery = (asked: { to?: 'report' | 'calendar'; job?: number }) =>
  listQuery(['links', asked], (page) =>
    unwrap(client.GET('/api/links', { params: { query: { ...asked, page } } })),
  );

/** What goes on at a job beside its record. */
export const talkQuery = (number: number) =>
  queryOptions({
    queryKey: ['talk', number],
    queryFn: () => unwrap(client.GET('/api/jobs/{number}/talk', { params: { path: { number } } })),
    refetchInterval: 30_000,
  });
