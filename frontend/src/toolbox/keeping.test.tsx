import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import type { Backups, TrailLine } from '../api/client';
import { refusal, showOnBench, stubServer } from '../test-bench';
import { BackupsPage } from './BackupsPage';
import { ChangesPage } from './ChangesPage';

const BACKUPS: Backups = {
  of_demo: false,
  folder: '/srv/backups',
  every_hours: 24,
  good: '2026-11-28T08:00:00Z',
  fault: '',
  asked: false,
  encrypted: false,
  free: 3_400_000_000,
  warnings: [],
  backups: [
    { name: 'works-20261128T080000Z.zip', at: '2026-11-28T08:00:00Z', size: 12_400_000 },
    { name: 'before-0.11.0-20261120T080000Z.zip', at: '2026-11-20T08:00:00Z', size: 900 },
  ],
};

const line = (id: number, more: Partial<TrailLine> = {}): TrailLine => ({
  id,
  at: '2026-11-28T08:00:00Z',
  who: 'Ada',
  about: 'pump P-3',
  kind: 'pump',
  act: 'changed',
  fields: [{ field: 'location', was: 'hall 1', now: '' }],
  ...more,
});

const server = stubServer(() => Response.json(BACKUPS));

test('backups are listed with why and size, and one more is asked for', async () => {
  showOnBench(<BackupsPage />);
  const rows = (await screen.findAllByRole('row')).slice(1);
  expect(rows.map((row) => row.textContent)).toEqual([
    expect.stringContaining('by the clock, or asked for12.4 MB'),
    expect.stringContaining('before a new version1 kB'),
  ]);
  expect(within(rows[0] as HTMLElement).getByRole('link')).toHaveAttribute(
    'href',
    '/api/backups/works-20261128T080000Z.zip',
  );
  expect(screen.getByText(/3.4 GB/)).toBeVisible();
  expect(screen.getByText(/They are not encrypted/)).toBeVisible();
  server.answer = () => Response.json({ ...BACKUPS, asked: true });
  await userEvent.click(screen.getByRole('button', { name: 'Make one now' }));
  expect(await screen.findByRole('button', { name: 'Being made ...' })).toBeDisabled();
});

test('without a good one, and with a try that failed, the page says both', async () => {
  const fault = 'there is no room for it';
  server.answer = () => Response.json({ ...BACKUPS, good: null, fault, encrypted: true, backups: [] });
  showOnBench(<BackupsPage />);
  expect(await screen.findByText(/None was made and checked yet/)).toBeVisible();
  expect(screen.getByRole('status')).toHaveTextContent(fault);
  expect(screen.getByText(/Only the key that was made for them/)).toBeVisible();
  server.answer = () => refusal({ code: 'disk-full', problem: 'The disk of the server is full.' });
  await userEvent.click(screen.getByRole('button', { name: 'Make one now' }));
  expect(await screen.findByRole('alert')).toHaveTextContent('disk of the server is full');
});

test('the trail shows old and new, and is narrowed by what somebody points at', async () => {
  const fields = ['a', 'b', 'c', 'd', 'f', 'g', 'e'].map((field) => ({ field, was: '', now: '1' }));
  const restored = { field: 'restored from', was: '', now: 'works.zip' };
  const lines = [
    line(3, { kind: 'works', about: 'works', fields: [restored] }),
    line(2),
    line(1, { who: 'server', act: 'added', kind: 'job', about: 'job 12', fields }),
  ];
  const people = { me: {}, people: [], log: [] };
  const isOfPeople = () => server.sent.at(-1)?.url.endsWith('/api/people');
  server.answer = () => Response.json(isOfPeople() ? people : { lines, more: false });
  showOnBench(<ChangesPage />);
  expect(await screen.findByText('location: hall 1 → nothing')).toBeVisible();
  expect(screen.getByText('restored from: works.zip')).toBeVisible();
  expect(screen.queryByText('e: 1')).toBeNull();
  await userEvent.click(screen.getByRole('button', { name: '1 more' }));
  expect(screen.getByText('e: 1')).toBeVisible();
  await userEvent.click(screen.getByRole('button', { name: 'job 12' }));
  await userEvent.selectOptions(screen.getByLabelText('What was done'), 'added');
  await userEvent.type(screen.getByLabelText(/^Find by/), 'hall');
  const asked = () => new URL(server.sent.at(-1)?.url ?? '').searchParams.toString();
  await waitFor(() => expect(asked()).toBe('about=job+12&act=added&q=hall&page=1'));
  expect(screen.getByRole('link', { name: /as CSV/ })).toHaveAttribute(
    'href',
    '/api/changes.csv?about=job+12&act=added&q=hall',
  );
});
