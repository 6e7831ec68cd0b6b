import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { Feature, Job } from '../api/client';
import { KeyProvider } from '../app/keys';
import { UnitProvider } from '../app/unit';
import { Pad } from './Pad';

interface Sent {
  url: string;
  body: Record<string, string>;
}
const sent: Sent[] = [];
let reply: (one: Sent) => Promise<Response>;

beforeEach(() => {
  localStorage.clear();
  sent.length = 0;
  vi.stubGlobal('fetch', async (request: Request) => {
    const one = { url: request.url, body: (await request.json()) as Record<string, string> };
    sent.push(one);
    return reply(one);
  });
});
afterEach(() => vi.unstubAllGlobals());

const STATIONS = ['12', '3', '6'].map((d) => ({ key: d, plane: '', direction: d, label: `${d} o'clock` }));
const FEATURE = {
  key: 'teeth',
  number: 11,
  name: 'Tooth ends',
  kind: 'external',
  new_text: '58.95 to 59.00',
  limit_text: 'at least 58.80',
  page: '',
  new_mm: [58.95, 59],
  lower_mm: 58.8,
  upper_mm: null,
  stations: STATIONS,
  readings: [],
  fits: [{ tag: 'M-4', decides: true, sentence: 'It decides.', working: null }],
  gauge: 'M-4',
  damages: [],
  photos: [],
  found: null,
  judged: null,
  left: null,
  forecast: null,
  missing: '',
  odd: [],
  expansion: '',
} as unknown as Feature;
const GAUGES = [
  { tag: 'M-4', kind: 'outside micrometer', lengths: true, range: '50 to 100 mm', overdue: false },
  { tag: 'F-2', kind: 'feeler set', lengths: true, range: '0.03 to 1 mm', overdue: false },
  { tag: 'W-1', kind: 'torque wrench', lengths: false, range: '40 to 250', overdue: false },
];

function job(feature: Feature, version = 1): Job {
  return {
    number: 5,
    version,
    unit: 'mm',
    signed: null,
    features: [feature],
    gauges: GAUGES,
    materials: [],
  } as unknown as Job;
}

/** A server that keeps what it is sent, each answer after a moment. */
function keeping() {
  const kept: Feature['readings'] = [];
  return async ({ body }: Sent) => {
    await new Promise((later) => setTimeout(later, 60));
    const { station = '', typed = '' } = body;
    kept.push({
      id: `${kept.length}`,
      phase: 'found',
      station,
      text: typed,
      typed,
      struck_reason: '',
    } as never);
    return Response.json(job({ ...FEATURE, readings: [...kept] }, kept.length + 1));
  };
}

function Bench({ feature, phase = 'found' }: { feature: Feature; phase?: 'found' | 'left' }) {
  const [client] = useState(() => {
    const made = new QueryClient({ defaultOptions: { mutations: { retry: false } } });
    made.setQueryData(['job', 5, 'mm'], job(feature));
    return made;
  });
  return (
    <QueryClientProvider client={client}>
      <UnitProvider>
        <KeyProvider>
          <Pad job={job(feature)} feature={feature} phase={phase} />
        </KeyProvider>
      </UnitProvider>
    </QueryClientProvider>
  );
}

const NO = { field: '', hint: '', suggestions: [], reasons: [] };
const field = () => screen.getByLabelText<HTMLInputElement>(/^Reading, /);

test('a gauge that types three readings in a breath fills three stations, each from the version before', async () => {
  reply = keeping();
  render(<Bench feature={FEATURE} />);
  await userEvent.type(field(), '58.91{Enter}58.92 mm{Enter}2.3197 in{Enter}');
  await waitFor(() => expect(sent).toHaveLength(3));
  expect(sent.map((s) => [s.body.station, s.body.typed])).toEqual([
    ['12', '58.91'],
    ['3', '58.92 mm'],
    ['6', '2.3197 in'],
  ]);
  expect(sent.map((s) => Number(s.body.version))).toEqual([1, 2, 3]);
  expect(new Set(sent.map((s) => s.body.id)).size).toBe(3);
});

test('an Enter too many is no reading', async () => {
  reply = keeping();
  render(<Bench feature={FEATURE} />);
  await userEvent.type(field(), '58.91{Enter}{Enter}{Enter}');
  await new Promise((later) => setTimeout(later, 200));
  expect(sent).toHaveLength(1);
});

test('a reading that fails goes back into the field at its station, and is sent again with the same identity', async () => {
  const problem = { code: 'unlikely', problem: 'is far.', field: 'Tooth ends', hint: '', reasons: [] };
  const suggestions = [{ typed: '58.91 mm', meaning: 'millimetres: 58.910 mm' }];
  reply = async () => Response.json({ ...problem, suggestions }, { status: 422 });
  render(<Bench feature={FEATURE} />);
  await userEvent.type(field(), '5891{Enter}');
  expect(await screen.findByRole('alert')).toHaveTextContent('Tooth ends: is far.');
  expect(field()).toHaveValue('5891');
  expect(field()).toHaveAccessibleName("Reading, 12 o'clock");
  await userEvent.click(screen.getByRole('button', { name: /It is millimetres/ }));
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]?.body).toMatchObject({ typed: '58.91 mm', station: '12', id: sent[0]?.body.id });
});

test('with a feeler set it asks for the leaf that goes, then the one that does not', async () => {
  reply = keeping();
  const gap = { ...FEATURE, kind: 'flatness', gauge: 'F-2', fits: [{ ...FEATURE.fits[0], tag: 'F-2' }] };
  render(<Bench feature={gap as Feature} />);
  await userEvent.type(field(), '0.03{Enter}');
  expect(field()).toHaveAccessibleName("Reading, 12 o'clock, 0.03 goes; leaf that does not");
  expect(sent).toHaveLength(0);
  await userEvent.type(field(), '0.04{Enter}');
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]?.body).toMatchObject({ typed: '0.03', stops: '0.04', gauge: 'F-2' });
});

test('a torque wrench is no gauge for a size, and one not made for it says so', async () => {
  render(<Bench feature={FEATURE} />);
  const options = screen.getAllByRole('option').map((o) => o.textContent);
  expect(options).toHaveLength(2);
  expect(options[1]).toContain('not made for this');
  await userEvent.selectOptions(screen.getByLabelText('Gauge in hand'), 'F-2');
  expect(screen.getByText(/A feeler set is not made for this/)).toBeVisible();
});

test('several that fail are all kept, and each can be sent again with its own identity', async () => {
  reply = async () => {
    await new Promise((later) => setTimeout(later, 60));
    return Response.json({ ...NO, code: 'conflict', problem: 'Somebody else saved.' }, { status: 409 });
  };
  render(<Bench feature={FEATURE} />);
  await userEvent.type(field(), '58.91{Enter}58.92{Enter}58.93{Enter}');
  await waitFor(() => expect(screen.getAllByRole('alert')).toHaveLength(3), { timeout: 3000 });
  // the last one lies in the field, the others are named
  expect(field()).toHaveValue('58.93');
  expect(screen.getByText(/12 o'clock: 58.91/)).toBeVisible();
  reply = keeping();
  const again = screen.getAllByRole('button', { name: 'Save it again' });
  expect(again).toHaveLength(2);
  await userEvent.click(again[0] as HTMLElement);
  await waitFor(() => expect(sent).toHaveLength(4));
  expect(sent[3]?.body).toMatchObject({ station: '12', typed: '58.91', id: sent[0]?.body.id });
});

test('typing replaces what was put back, and a wrong number put right is done with', async () => {
  const problem = { ...NO, code: 'unlikely', problem: 'is far.' };
  reply = async () => Response.json(problem, { status: 422 });
  render(<Bench feature={FEATURE} />);
  await userEvent.type(field(), '5891{Enter}');
  await screen.findByRole('alert');
  reply = keeping();
  await userEvent.keyboard('58.91{Enter}');
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]?.body).toMatchObject({ station: '12', typed: '58.91' });
  expect(screen.queryByRole('alert')).toBeNull();
});

test('the same reading entered again after its answer was lost keeps its identity', async () => {
  reply = async () => Response.json({ ...NO, code: 'bad-request', problem: 'no' }, { status: 500 });
  render(<Bench feature={FEATURE} />);
  await userEvent.type(field(), '58.91{Enter}');
  await screen.findByRole('alert');
  expect(field()).toHaveValue('58.91');
  await userEvent.type(field(), '{Enter}');
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]?.body.id).toBe(sent[0]?.body.id);
});

test('the letter for damage is free in Build, where it marks a step done', () => {
  const damages = [{ key: 'burr', name: 'nick or burr', call: 'Watch', meaning: 'Dress it.' }];
  const feature = { ...FEATURE, damages, look: null, look_left: null } as Feature;
  const { unmount } = render(<Bench feature={feature} />);
  expect(screen.getByRole('button', { name: 'D damage' })).toBeVisible();
  unmount();
  render(<Bench feature={feature} phase="left" />);
  expect(screen.queryByRole('button', { name: 'D damage' })).toBeNull();
  expect(screen.getByRole('button', { name: 'Damage?' })).toBeVisible();
});
