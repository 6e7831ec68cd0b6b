import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { Feature, Job } from '../../api/client';
import { KeyProvider } from '../../app/keys';
import { closePage } from '../../app/outbox';
import { UnitProvider, useUnit } from '../../app/unit';
import { WorksContext } from '../../app/works';
import { TEST_WORKS } from '../../test-bench';
import { Pad } from './Pad';
import { aFeature, aGauge, aJob, aReading } from '../../test-builders';

interface Sent {
  url: string;
  body: Record<string, string>;
}
const sent: Sent[] = [];
let reply: (one: Sent) => Promise<Response>;

beforeEach(() => {
  localStorage.clear();
  closePage();
  sent.length = 0;
  vi.stubGlobal('fetch', async (request: Request) => {
    const one = { url: request.url, body: (await request.json()) as Record<string, string> };
    sent.push(one);
    return reply(one);
  });
});
afterEach(() => vi.unstubAllGlobals());

const STATIONS = ['12', '3', '6'].map((d) => ({ key: d, plane: '', direction: d, label: `${d} o'clock` }));
const FEATURE = aFeature({
  key: 'teeth',
  number: 11,
  name: 'Tooth ends',
  new_text: '58.95 to 59.00',
  limit_text: 'at least 58.80',
  new_mm: [58.95, 59],
  lower_mm: 58.8,
  stations: STATIONS,
  made: ['M-4'],
  fits: [{ tag: 'M-4', decides: true, sentence: 'It decides.', working: null }],
  gauge: 'M-4',
});
const GAUGES = [
  aGauge('M-4', 'outside micrometer'),
  aGauge('F-2', 'feeler set'),
  aGauge('W-1', 'torque wrench', { lengths: false }),
];

const job = (feature: Feature, version = 1): Job => aJob({ version, features: [feature], gauges: GAUGES });

/** A server that keeps what it is sent, each answer after a moment. */
function keeping() {
  const kept: Feature['readings'] = [];
  return async ({ body }: Sent) => {
    await new Promise((later) => setTimeout(later, 60));
    const { station = '', typed = '' } = body;
    kept.push(aReading({ id: body.id ?? '', station, text: typed, typed }));
    return Response.json(job({ ...FEATURE, readings: [...kept] }, kept.length + 1));
  };
}

interface BenchProps {
  feature: Feature;
  phase?: 'found' | 'left';
  onNext?: () => void;
}

/** The pad as the page shows it: with the part as the last answer has it. */
function Whole({
  given,
  phase,
  onNext,
}: {
  given: Feature;
  phase: 'found' | 'left';
  onNext?: (() => void) | undefined;
}) {
  const kept = useQuery<Job>({ queryKey: ['job', 5, 'mm'], queryFn: () => job(given), staleTime: Infinity });
  const shown = kept.data?.features[0] ?? given;
  return <Pad job={kept.data ?? job(given)} feature={shown} phase={phase} onNext={onNext} />;
}

function Switch() {
  const { toggle } = useUnit();
  return <button onClick={toggle}>switch the unit</button>;
}

function Bench({ feature, phase = 'found', onNext }: BenchProps) {
  const [client] = useState(() => {
    const made = new QueryClient({ defaultOptions: { mutations: { retry: false } } });
    made.setQueryData(['job', 5, 'mm'], job(feature));
    return made;
  });
  return (
    <QueryClientProvider client={client}>
      <UnitProvider>
        <WorksContext.Provider value={TEST_WORKS}>
          <KeyProvider>
            <Switch />
            <Whole given={feature} phase={phase} onNext={onNext} />
          </KeyProvider>
        </WorksContext.Provider>
      </UnitProvider>
    </QueryClientProvider>
  );
}

const NO = { field: '', hint: '', suggestions: [], reasons: [], reason_wanted: false };
const field = () => screen.getByLabelText<HTMLInputElement>(/^Reading, /);

test('a gauge that types three readings in a breath fills three stations, each from the version on screen', async () => {
  reply = keeping();
  render(<Bench feature={FEATURE} />);
  await userEvent.type(field(), '58.91{Enter}58.92 mm{Enter}2.3197 in{Enter}');
  await waitFor(() => expect(sent).toHaveLength(3));
  expect(sent.map((s) => [s.body.station, s.body.typed])).toEqual([
    ['12', '58.91'],
    ['3', '58.92 mm'],
    ['6', '2.3197 in'],
  ]);
  // From what was on screen at each Enter: the server knows one's own changes and those of others apart.
  const versions = sent.map((s) => Number(s.body.version));
  expect(versions[0]).toBe(1);
  expect(versions).toEqual([...versions].sort());
  expect(new Set(sent.map((s) => s.body.id)).size).toBe(3);
});

test('an Enter too many is no reading', async () => {
  reply = keeping();
  render(<Bench feature={FEATURE} />);
  await userEvent.type(field(), '58.91{Enter}{Enter}{Enter}');
  await new Promise((later) => setTimeout(later, 200));
  expect(sent).toHaveLength(1);
});

test('twelve fast readings on a part of three stations put none on another', async () => {
  reply = keeping();
  const next = vi.fn();
  render(<Bench feature={FEATURE} onNext={next} />);
  const typed = Array.from({ length: 12 }, (_, i) => `58.${10 + i}`);
  await userEvent.type(field(), typed.map((one) => `${one}{Enter}{Enter}`).join(''));
  await waitFor(() => expect(sent).toHaveLength(12), { timeout: 4000 });
  expect(sent.every((s) => s.body.feature === 'teeth')).toBe(true);
  expect(sent.map((s) => s.body.typed)).toEqual(typed);
  expect(next).not.toHaveBeenCalled();
});

test('when all stations are taken it says so, a number is a repeat, and Enter goes on', async () => {
  reply = keeping();
  const next = vi.fn();
  render(<Bench feature={FEATURE} onNext={next} />);
  await userEvent.type(field(), '58.91{Enter}58.92{Enter}58.93{Enter}');
  expect(await screen.findByText(/All 3 stations are taken. A number now is a repeat here/)).toBeVisible();
  await userEvent.type(field(), '58.94{Enter}');
  await waitFor(() => expect(sent).toHaveLength(4));
  expect(sent[3]?.body).toMatchObject({ feature: 'teeth', station: '6' });
  await waitFor(() => expect(screen.queryByText(/on the way/)).toBeNull());
  const now = vi.spyOn(performance, 'now').mockReturnValue(10_000);
  await userEvent.type(field(), '58.95{Enter}');
  await waitFor(() => expect(sent).toHaveLength(5));
  await waitFor(() => expect(screen.queryByText(/on the way/)).toBeNull());
  await userEvent.type(field(), '{Enter}'); // a gauge's second one
  expect(next).not.toHaveBeenCalled();
  now.mockReturnValue(10_750);
  await userEvent.type(field(), '{Enter}');
  expect(next).toHaveBeenCalledOnce();
  now.mockRestore();
});

test('a reading keeps the unit, the mark, the person and the moment of its Enter', async () => {
  let answer: () => void = () => undefined;
  const answered = new Promise<void>((done) => {
    answer = done;
  });
  const kept = keeping();
  reply = async (one) => {
    await answered;
    return kept(one);
  };
  render(<Bench feature={FEATURE} />);
  await userEvent.type(field(), '58.91{Enter}58.92{Enter}');
  await userEvent.click(screen.getByRole('button', { name: 'switch the unit' }));
  answer();
  await waitFor(() => expect(sent).toHaveLength(2));
  for (const { body } of sent) {
    expect(body).toMatchObject({ unit: 'mm', mark: 'point', person: 'ines' });
    expect(body.at).toMatch(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}[+-]\d\d:\d\d$/);
  }
});

test('a reading that is asked about waits at its station, and the next number lands on the next one', async () => {
  const problem = { ...NO, code: 'unlikely', problem: 'is far.', field: 'Tooth ends' };
  const suggestions = [{ typed: '58.91 mm', meaning: 'millimetres: 58.910 mm' }];
  reply = async () => Response.json({ ...problem, suggestions }, { status: 422 });
  render(<Bench feature={FEATURE} />);
  await userEvent.type(field(), '5891{Enter}');
  expect(await screen.findByRole('alert')).toHaveTextContent('Tooth ends: is far.');
  expect(screen.getByText(/12 o'clock: 5891/)).toBeVisible();
  expect(field()).toHaveValue('');
  expect(field()).toHaveAccessibleName("Reading, 3 o'clock");
  reply = keeping();
  await userEvent.type(field(), '58.92{Enter}');
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]?.body).toMatchObject({ typed: '58.92', station: '3' });
  // the station that waits is not offered again by itself: the next number is the next station's, then a repeat
  await userEvent.type(field(), '58.93{Enter}58.94{Enter}');
  await waitFor(() => expect(sent).toHaveLength(4));
  expect(sent.slice(2).map((s) => s.body.station)).toEqual(['6', '6']);
  await userEvent.click(screen.getByRole('button', { name: /It is millimetres/ }));
  await waitFor(() => expect(sent).toHaveLength(5));
  expect(sent[4]?.body).toMatchObject({ typed: '58.91 mm', station: '12', id: sent[0]?.body.id });
});

test('what is meant is sent as meant, with its reason where one is wanted', async () => {
  const problem = { ...NO, code: 'unlikely', problem: 'Is it the new part?', reason_wanted: true };
  reply = async () => Response.json(problem, { status: 422 });
  render(<Bench feature={FEATURE} />);
  await userEvent.type(field(), '58.91{Enter}');
  const meant = await screen.findByRole('button', { name: 'It is meant as typed' });
  expect(meant).toBeDisabled();
  await userEvent.type(screen.getByLabelText('Why it is meant'), 'reamed');
  await userEvent.click(meant);
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]?.body).toMatchObject({ meant: true, reason: 'reamed', at: sent[0]?.body.at });
});

test('with a feeler set it asks for the leaf that goes, then the one that does not', async () => {
  reply = keeping();
  const gap = {
    ...FEATURE,
    kind: 'flatness',
    gauge: 'F-2',
    made: ['F-2'],
    fits: [{ ...FEATURE.fits[0], tag: 'F-2' }],
  };
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
  expect(field()).toHaveValue('');
  expect(screen.getByText(/12 o'clock: 58.91/)).toBeVisible();
  reply = keeping();
  const again = screen.getAllByRole('button', { name: 'Save it again' });
  expect(again).toHaveLength(3);
  await userEvent.click(again[0] as HTMLElement);
  await waitFor(() => expect(sent).toHaveLength(4));
  expect(sent[3]?.body).toMatchObject({ station: '12', typed: '58.91', id: sent[0]?.body.id });
});

test('a wrong number is typed anew at its station, by the technician’s own act', async () => {
  const problem = { ...NO, code: 'field', problem: 'is not a number.' };
  reply = async () => Response.json(problem, { status: 422 });
  render(<Bench feature={FEATURE} />);
  await userEvent.type(field(), '58x91{Enter}');
  await userEvent.click(await screen.findByRole('button', { name: 'Type it anew' }));
  expect(field()).toHaveAccessibleName("Reading, 12 o'clock");
  expect(screen.queryByRole('alert')).toBeNull();
  reply = keeping();
  await userEvent.keyboard('58.91{Enter}');
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]?.body).toMatchObject({ station: '12', typed: '58.91' });
});

test('the letter for damage is free in Build, where it marks a step done', () => {
  const damages = [{ key: 'burr', name: 'nick or burr', verdict: 'Watch', meaning: 'Dress it.' }];
  const feature = { ...FEATURE, damages, look: null, look_left: null } as Feature;
  const { unmount } = render(<Bench feature={feature} />);
  expect(screen.getByRole('button', { name: 'D damage' })).toBeVisible();
  unmount();
  render(<Bench feature={feature} phase="left" />);
  expect(screen.queryByRole('button', { name: 'D damage' })).toBeNull();
  expect(screen.getByRole('button', { name: 'Damage?' })).toBeVisible();
});

test('between its answer and the sheet a reading holds its station', async () => {
  // The sheet is told late: what waits is empty already, and the part on screen is still without it.
  const late = { ...FEATURE, readings: [] };
  reply = () => Promise.resolve(Response.json(job(late, 2)));
  render(<Bench feature={FEATURE} />);
  await userEvent.type(field(), '58.91{Enter}58.92{Enter}');
  await waitFor(() => expect(sent).toHaveLength(2));
  await new Promise((later) => setTimeout(later, 100));
  await userEvent.type(field(), '58.93{Enter}');
  await waitFor(() => expect(sent).toHaveLength(3));
  expect(sent.map((s) => s.body.station)).toEqual(['12', '3', '6']);
  await userEvent.type(field(), '58.94{Enter}');
  await waitFor(() => expect(sent).toHaveLength(4));
  expect(sent[3]?.body.station).toBe('6');
});
