import { act, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, useLocation } from 'react-router';
import { beforeAll, expect, test } from 'vitest';
import type { Bar, DueLine, PartNow, PumpDetail, PumpLine } from '../api/client';
import { LinkTable } from '../app/SharedLinks';
import { useScanner } from '../app/scanner';
import { showOnBench, stubServer } from '../test-bench';
import { WORKING } from '../test-builders';
import { DuePage } from './DuePage';
import { Fleet } from './Fleet';
import { codeIn } from './label';
import { PumpState } from './PumpState';

const BAR: Bar = {
  key: 'pin',
  number: 3,
  name: 'Idler pin',
  new: [29.98, 30],
  limit: 29.9,
  limit_text: '29.90',
  mm: 29.95,
  expanded_mm: 0.004,
  text: '29.95',
  later: 29.93,
  measured: true,
  verdict: 'Keep',
  left: '1 240 h left',
};
const PUMP: PumpLine = {
  tag: 'P-1',
  service: 'Tallow',
  location: 'yard',
  serial: '88',
  sheet: 'Sheet',
  slug: 'sheet',
  liquid: 'tallow',
  on_bench: null,
  retired: null,
  lent: true,
  hours: '4 350 h',
  read: '2026-03-01',
  rate: '35 h a week',
  overhauls: 2,
  overhauled: '2025-01-01',
  worst: [BAR],
  next: { what: 'Gear-case oil', day: '2026-02-01', late: true },
  left: '350 h left',
};
const DUE: DueLine = {
  kind: 'kit',
  pump: 'P-1',
  gauge: '',
  name: 'Parts to order',
  said: '1 × 42 Gasket.',
  service: 'Tallow',
  place: 'yard',
  lent: false,
  on_bench: null,
  day: '2026-02-01',
  late: true,
};
const WEEK = { begins: '2026-03-01', counts: [{ kind: 'service', count: 2 }] };

let lines: unknown[] = [];
const server = stubServer(() => {
  const url = server.sent.at(-1)?.url ?? '';
  if (url.includes('/due/ahead'))
    return Response.json({ late: [{ kind: 'kit', count: 4 }], weeks: [WEEK], undated: [], behind: 7 });
  if (url.includes('/drawing'))
    return Response.json({
      width: 0,
      height: 0,
      named: true,
      ring_px: 17,
      row_px: 1,
      views: [],
      numbers: [],
    });
  if (url.includes('/wear/'))
    return Response.json({ points: [], lives: [], band: [], ticks: [], new_mm: [] });
  return Response.json({ lines, more: false });
});
const asked = () => server.sent.map((one) => new URL(one.url).searchParams.get('q'));

beforeAll(() => {
  // Rows are only those on screen: here the screen has a height.
  Object.defineProperty(HTMLElement.prototype, 'clientHeight', { configurable: true, value: 600 });
  document.body.id = 'main';
});

test('a pump is a line with its least sizes as bars, what is past due, and where it is on loan', async () => {
  lines = [
    PUMP,
    { ...PUMP, tag: 'P-2', worst: [], next: null, hours: '', left: '', lent: false, overhauls: 0 },
  ];
  showOnBench(<Fleet />);
  const row = await screen.findByRole('row', { name: /P-1/ });
  expect(within(row).getByRole('img')).toHaveAccessibleName(
    /Idler pin: 29.95 mm, limit 29.90, Keep, 1 240 h left/,
  );
  expect(row).toHaveTextContent('past due, 1 Feb 2026');
  expect(row).toHaveTextContent('on loan, yard');
  const other = screen.getByRole('row', { name: /P-2/ });
  expect(other).toHaveTextContent('not measured yet');
  expect(other).toHaveTextContent('not known: meter not read');
});

test('what is typed is asked for as it is typed, and a label scanned into the field is not looked for', async () => {
  lines = [PUMP];
  showOnBench(<Fleet />);
  const field = await screen.findByLabelText(/Find by tag/);
  await userEvent.type(field, 'tallow');
  await waitFor(() => expect(asked()).toContain('tallow'));
  await userEvent.clear(field);
  await userEvent.type(field, 'https://w/p/7ATQKM');
  expect(asked().some((q) => q?.includes('7ATQKM'))).toBe(false);
  await userEvent.click(screen.getByLabelText('On loan'));
  await waitFor(() => expect(server.sent.at(-1)?.url).toContain('lent=true'));
});

test('the weeks say what falls due in each, what is past due, and that some are being worked out', async () => {
  lines = [DUE];
  showOnBench(<DuePage />);
  expect(await screen.findByLabelText('Past due: 4 parts to order')).toBeVisible();
  expect(screen.getByLabelText(/This week, from 1 Mar 2026: 2 service by hours/)).toBeVisible();
  expect(screen.getByText(/7 pumps and gauges are being worked out anew/)).toBeVisible();
  const row = await screen.findByRole('row', { name: /Parts to order/ });
  expect(row).toHaveTextContent('past due');
  await userEvent.click(screen.getByLabelText('Parts to order'));
  await waitFor(() => expect(server.sent.at(-1)?.url).toContain('kind=kit'));
  expect(screen.getByText('Table (CSV)')).toHaveAttribute('href', expect.stringContaining('kind=kit'));
});

const PART: PartNow = {
  key: 'pin',
  number: 3,
  name: 'Idler pin',
  part: 'Idler pin',
  size: '29.95 mm',
  measured: true,
  day: '2025-01-01',
  verdict: 'Keep',
  sentence: '29.95 mm when last measured.',
  left: '1 240 h to the limit',
  date: '',
  odd: [],
  bar: BAR,
  working: WORKING,
};

test('the part with the least left is in hand, and what nobody measured has no size', async () => {
  const bore = {
    ...PART,
    key: 'bore',
    number: 2,
    name: 'Bore',
    measured: false,
    verdict: '',
    size: '30.00 mm',
    bar: null,
  };
  const page = { line: PUMP, parts: [bore, PART], unknown: '' } as unknown as PumpDetail;
  showOnBench(<PumpState page={page} />);
  expect(await screen.findByText(/29.95 mm when last measured/)).toBeVisible();
  expect(screen.getByText(/1 240 h to the limit/)).toBeVisible();
  await userEvent.selectOptions(screen.getByLabelText('Part in hand', { selector: 'select' }), 'bore');
  expect(screen.getByText('New, not measured')).toBeVisible();
  await userEvent.click(screen.getByRole('button', { name: 'calendar' }));
  expect(screen.getByRole('button', { name: 'calendar' })).toHaveAttribute('aria-pressed', 'true');
});

test('a link is taken back by two presses', async () => {
  const link = {
    id: 'l-1',
    to: 'report',
    of: 'report of job 2',
    job: 2,
    whom: 'Harl',
    until: '2026-12-31',
    by: 'Otto',
    at: '2026-01-02T03:04:05Z',
    state: 'open',
    revoked_by: '',
    revoked_at: null,
    uses: 0,
    last_used: null,
    may_revoke: true,
  };
  showOnBench(<LinkTable lines={[link]} />);
  await userEvent.click(screen.getByRole('button', { name: 'take it back' }));
  expect(server.sent).toHaveLength(0);
  await userEvent.click(screen.getByRole('button', { name: 'It leads nowhere from now on' }));
  await waitFor(() => expect(server.sent[0]?.url).toContain('/api/links/l-1/revoke'));
});

test('a code is found in the address of a label and in its six letters, and nowhere else', () => {
  expect(codeIn(' https://pumps.example:8443/p/7ATQKM ')).toBe('7ATQKM');
  expect(codeIn('HTTP://W/P/7atqkm')).toBe('7ATQKM');
  expect(codeIn('label 7atqkm')).toBe('7ATQKM');
  for (const other of [
    'P-207',
    'https://w/fleet/P-207',
    '7ATQKM',
    'https://w/p/7ATQK',
    'https://w/p/0ATQKM',
  ]) {
    expect(codeIn(other)).toBe('');
  }
});

function Scanned() {
  useScanner();
  const { pathname } = useLocation();
  return (
    <>
      <p>{pathname}</p>
      <input type="text" data-pad="1" aria-label="pad" />
      <input type="text" aria-label="reason" />
    </>
  );
}

/** Keys so many milliseconds apart, as a scanner or a person types them; those that came through. */
function type(target: Element, text: string, apart: number) {
  let at = 1000;
  return [...text, 'Enter'].filter((key) => {
    at += apart;
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
    Object.defineProperty(event, 'timeStamp', { value: at });
    let came = false;
    act(() => {
      came = fireEvent(target, event);
    });
    return came;
  });
}

test('a hand scanner opens a pump from any page, also into the pad; a person who types does not', () => {
  render(
    <MemoryRouter>
      <Scanned />
    </MemoryRouter>,
  );
  const label = 'https://w/p/7ATQKM';
  expect(type(screen.getByLabelText('reason'), label, 5)).toHaveLength(label.length + 1);
  expect(screen.getByText('/')).toBeVisible();
  expect(type(screen.getByLabelText('pad'), label, 200)).toHaveLength(label.length + 1);
  expect(type(screen.getByLabelText('pad'), '25.438', 5)).toHaveLength(7);
  expect(screen.getByText('/')).toBeVisible();
  // its first letter alone comes through
  expect(type(screen.getByLabelText('pad'), label, 5)).toEqual(['h']);
  expect(screen.getByText('/p/7ATQKM')).toBeVisible();
});
