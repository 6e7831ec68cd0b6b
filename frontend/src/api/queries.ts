import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import type { Page } from '../app/Listed';
import type { Entered } from '../app/works';
import { client, unwrap, type Job, type Unit } from './client';
import { heldBy, joined } from './sections';

/** What was shown stays while the same is read in another unit or version; of another thing nothing is. `of` begins the key of both. */
export const ofTheSame =
  (...of: unknown[]) =>
  <T>(before: T | undefined, query: { queryKey: readonly unknown[] } | undefined): T | undefined =>
    query && of.every((part, i) => part === query.queryKey[i]) ? before : undefined;

/** A list, page by page, as far as it was asked for. */
export const listQuery = <T>(queryKey: unknown[], ask: (page: number) => Promise<Page<T>>) =>
  infiniteQueryOptions({
    queryKey,
    queryFn: ({ pageParam }) => ask(pageParam),
    initialPageParam: 1,
    getNextPageParam: (last, all) => (last.more ? all.length + 1 : undefined),
    placeholderData: keepPreviousData,
  });

/** Jobs by a sheet, or by one revision of it. */
export const jobsOfSheetQuery = (
  state: 'open' | 'signed',
  of: { sheet: string; revision?: string; but?: string },
) =>
  listQuery(['jobs', state, of], (page) =>
    unwrap(client.GET('/api/jobs', { params: { query: { state, page, ...of } } })),
  );

export const jobsQuery = (state: 'open' | 'signed' | 'abandoned', q: string) =>
  listQuery(['jobs', state, q], (page) =>
    unwrap(client.GET('/api/jobs', { params: { query: { state, q, page } } })),
  );

export const jobQuery = (number: number, unit: Unit) =>
  queryOptions({
    queryKey: ['job', number, unit],
    queryFn: async ({ client: cache }) => {
      const before = cache.getQueryData<Job>(['job', number, unit]);
      const params = { path: { number }, query: { unit }, header: heldBy(before) };
      return joined(before, await unwrap(client.GET('/api/jobs/{number}', { params })));
    },
    placeholderData: ofTheSame('job', number),
    // Sections share what is the same already, and a copy would not be known as held.
    structuralSharing: false,
  });

/** What one gauge can do for a part; the version of the job says when to ask again. Never what it was before the last reading. */
export const fitQuery = (number: number, feature: string, gauge: string, unit: Unit, version: number) =>
  queryOptions({
    queryKey: ['fit', number, feature, gauge, unit, version],
    queryFn: () =>
      unwrap(
        client.GET('/api/jobs/{number}/fits/{feature}/{gauge}', {
          params: { path: { number, feature, gauge }, query: { unit } },
        }),
      ),
  });

/** A working, asked for whenever it is opened. */
export const workingQuery = (at: string, unit: Unit) =>
  queryOptions({
    queryKey: ['working', at, unit],
    queryFn: () => {
      const place = at as '/api/jobs/{number}/workings/{place}';
      return unwrap(client.GET(place, { params: { path: { number: 0, place: '' }, query: { unit } } }));
    },
    gcTime: 0,
  });

const EVERY_MS = 3_000;

/** How far a job has come, asked for again and again while its page is looked at. */
export const versionQuery = (number: number) =>
  queryOptions({
    queryKey: ['version', number],
    queryFn: () => unwrap(client.GET('/api/jobs/{number}/version', { params: { path: { number } } })),
    refetchInterval: EVERY_MS,
    retry: false,
    staleTime: 0,
  });

/** What a works that begins has of what a first job needs. */
export const startQuery = queryOptions({
  queryKey: ['start'],
  queryFn: () => unwrap(client.GET('/api/start')),
});

/** Backups; asked again while one is being made. */
export const backupsQuery = queryOptions({
  queryKey: ['backups'],
  queryFn: () => unwrap(client.GET('/api/backups')),
  refetchInterval: (query) => (query.state.data?.asked ? 2_000 : false),
});

/** What the trail is asked for. */
export interface TrailAsked {
  q?: string;
  who?: string;
  about?: string;
  act?: 'added' | 'changed' | 'removed';
  since?: string;
  until?: string;
}

export const trailQuery = (asked: TrailAsked) =>
  listQuery(['changes', asked], (page) =>
    unwrap(client.GET('/api/changes', { params: { query: { ...asked, page } } })),
  );

export const peopleQuery = queryOptions({
  queryKey: ['people'],
  queryFn: () => unwrap(client.GET('/api/people')),
});

/** Who can go on at this browser. */
export const somebodyQuery = queryOptions({
  queryKey: ['somebody'],
  queryFn: () => unwrap(client.GET('/api/people/switch')),
});

/** Pumps to open a job on: those on no bench first. */
export const freePumpsQuery = (unit: Unit, q: string) =>
  queryOptions({
    queryKey: ['pumps', 'free', unit, q],
    queryFn: () =>
      unwrap(client.GET('/api/pumps', { params: { query: { unit, q, free: true, retired: false } } })),
    placeholderData: keepPreviousData,
  });

export const symptomsQuery = (tag: string) =>
  queryOptions({
    queryKey: ['symptoms', tag],
    queryFn: () => unwrap(client.GET('/api/pumps/{tag}/symptoms', { params: { path: { tag } } })),
    staleTime: Infinity,
  });

export const pumpQuery = (tag: string, unit: Unit) =>
  queryOptions({
    queryKey: ['pump', tag, unit],
    queryFn: () => unwrap(client.GET('/api/pumps/{tag}', { params: { path: { tag }, query: { unit } } })),
    placeholderData: ofTheSame('pump', tag),
  });

/** What a pump of a sheet is chosen from. */
export const pumpChoicesQuery = (slug: string) =>
  queryOptions({
    queryKey: ['choices', slug],
    queryFn: () => unwrap(client.GET('/api/sheet-choices/{slug}', { params: { path: { slug } } })),
    enabled: slug !== '',
  });

export const sheetsQuery = (q: string) =>
  listQuery(['sheets', q], (page) => unwrap(client.GET('/api/sheets', { params: { query: { q, page } } })));

/** Sheets to choose one of; by what sets the gap where that matters. */
export const foundSheetsQuery = (q: string, means = '') =>
  queryOptions({
    queryKey: ['sheets', 'found', q, means],
    queryFn: () => unwrap(client.GET('/api/sheets', { params: { query: { q, means } } })),
    placeholderData: keepPreviousData,
  });

export const sheetQuery = (slug: string, revision: string, unit: Unit) =>
  queryOptions({
    queryKey: ['sheet', slug, revision, unit],
    queryFn: () =>
      unwrap(
        client.GET('/api/sheets/{slug}/{revision}', {
          params: { path: { slug, revision }, query: { unit } },
        }),
      ),
    placeholderData: ofTheSame('sheet', slug, revision),
  });

export const familiesQuery = queryOptions({
  queryKey: ['families'],
  queryFn: () => unwrap(client.GET('/api/families')),
  staleTime: Infinity,
});

/** Sheets that are being typed. */
export const draftsQuery = listQuery(['drafts'], (page) =>
  unwrap(client.GET('/api/sheet-drafts', { params: { query: { page } } })),
);

export const draftQuery = (id: number) =>
  queryOptions({
    queryKey: ['draft', id],
    queryFn: () => unwrap(client.GET('/api/sheet-drafts/{id}', { params: { path: { id } } })),
    // What is typed is in the page's hands: it is not read anew under them.
    staleTime: Infinity,
    gcTime: 0,
  });

/** The pump of a sheet that is being typed, as far as it is. */
export const draftDrawingQuery = (id: number, version: number) =>
  queryOptions({
    queryKey: ['draft-drawing', id, version],
    queryFn: () =>
      unwrap(
        client.GET('/api/sheet-drafts/{id}/drawing', {
          params: { path: { id }, query: { screen: 'narrow' } },
        }),
      ),
    placeholderData: ofTheSame('draft-drawing', id),
    gcTime: 0,
  });

export const readingQuery = (slug: string, revision: string) =>
  queryOptions({
    queryKey: ['reading', slug, revision],
    queryFn: () =>
      unwrap(client.GET('/api/sheets/{slug}/{revision}/reading', { params: { path: { slug, revision } } })),
  });

export const comparisonQuery = (slug: string, revision: string, other: string) =>
  queryOptions({
    queryKey: ['comparison', slug, revision, other],
    queryFn: () =>
      unwrap(
        client.GET('/api/sheets/{slug}/{revision}/against/{other}', {
          params: { path: { slug, revision, other } },
        }),
      ),
  });

export type GaugeSort = 'tag' | 'due';

export const gaugesQuery = (unit: Unit, q: string, sort: GaugeSort, retired: boolean) =>
  listQuery(['gauges', unit, q, sort, retired], (page) =>
    unwrap(client.GET('/api/gauges', { params: { query: { unit, q, page, sort, retired } } })),
  );

export const shelfQuery = (unit: Unit, q: string, sheet: string) =>
  listQuery(['shelf', unit, q, sheet], (page) =>
    unwrap(client.GET('/api/shelf', { params: { query: { unit, q, page, ...(sheet && { sheet }) } } })),
  );

export const gunsQuery = (unit: Unit, q: string) =>
  listQuery(['guns', unit, q], (page) =>
    unwrap(client.GET('/api/guns', { params: { query: { unit, q, page } } })),
  );

export const sumsQuery = (unit: Unit) =>
  queryOptions({
    queryKey: ['sums', unit],
    queryFn: () => unwrap(client.GET('/api/sums', { params: { query: { unit } } })),
    placeholderData: keepPreviousData,
  });

/** One sum for what was typed; nothing is recorded by it. */
export const sumQuery = (key: string, given: Record<string, string>, entered: Entered) =>
  queryOptions({
    queryKey: ['sum', key, given, entered],
    queryFn: () =>
      unwrap(
        client.POST('/api/sums/{key}', {
          params: { path: { key }, query: { unit: entered.unit } },
          body: { given, ...entered },
        }),
      ),
    retry: false,
    staleTime: Infinity,
  });

export const wearQuery = (number: number, feature: string, unit: Unit, version: number) =>
  queryOptions({
    queryKey: ['wear', number, feature, unit, version],
    queryFn: () =>
      unwrap(
        client.GET('/api/jobs/{number}/wear/{feature}', {
          params: { path: { number, feature }, query: { unit } },
        }),
      ),
    placeholderData: ofTheSame('wear', number, feature),
  });

export const proceduresQuery = queryOptions({
  queryKey: ['procedures'],
  queryFn: () => unwrap(client.GET('/api/procedures')),
});

export const procedureQuery = (family: string) =>
  queryOptions({
    queryKey: ['procedure', family],
    queryFn: () => unwrap(client.GET('/api/procedures/{family}', { params: { path: { family } } })),
  });

/** Asked for once a page: what is typed on it goes by what it was loaded with. */
export const settingsQuery = queryOptions({
  queryKey: ['settings'],
  queryFn: () => unwrap(client.GET('/api/settings')),
  staleTime: Infinity,
});

export const zonesQuery = queryOptions({
  queryKey: ['zones'],
  queryFn: () => unwrap(client.GET('/api/settings/zones')),
  staleTime: Infinity,
});

export const logQuery = (number: number, before: number) =>
  queryOptions({
    queryKey: ['log', number, before],
    queryFn: () =>
      unwrap(client.GET('/api/jobs/{number}/log', { params: { path: { number }, query: { before } } })),
    staleTime: Infinity,
  });

export const meQuery = queryOptions({
  queryKey: ['me'],
  queryFn: () => unwrap(client.GET('/api/me')),
  staleTime: Infinity,
});
