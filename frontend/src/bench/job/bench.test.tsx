import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { expect, test } from 'vitest';
import type { Job } from '../../api/client';
import { showOnBench, stubServer } from '../../test-bench';
import { Steps } from '../steps/Steps';
import { TryForm } from '../set/TryForm';
import { aGauge, aJob, aStep } from '../../test-builders';
import {
  aGap,
  aPiece,
  aSetting,
  aShaft,
  aTry,
  byGaskets,
  byHousing,
  byShims,
  byTiming,
} from '../../test-settings';

const server = stubServer(() => Response.json({ ...JOB, version: 8 }));
const { sent } = server;

const JOB = aJob({
  steps: [
    aStep({ key: 'a', text: 'Nameplate read.', by: 'Ines', at: '2026-01-02T03:04:05Z' }),
    aStep({ key: 'b', text: 'Turns freely by hand.', hold: true }),
    aStep({ key: 'c', text: 'Guards back on.', caution: true }),
    aStep({ key: 'x', text: 'Elsewhere.', stage: 'strip' }),
    aStep({ key: 'y', text: 'Packing in.', stage: 'build', waits: ['Packing: next comes ring 2.'] }),
  ],
  gauges: [
    aGauge('OLD', 'feeler set', { overdue: true }),
    aGauge('F-1', 'feeler set'),
    aGauge('D-1', 'dial indicator'),
  ],
});

const show = (children: ReactNode, ...more: Job[]) => showOnBench(children, JOB, ...more);

test('done steps are folded, the present one is large, the next ones are visible', async () => {
  show(<Steps job={JOB} stage="prove" />);
  expect(screen.getByText('Turns freely by hand.')).toHaveClass('step-text');
  expect(screen.getByText(/Hold point: nothing is signed/)).toBeVisible();
  expect(screen.getByText('Guards back on.')).toBeVisible();
  expect(screen.queryByText('Nameplate read.')).toBeNull();
  expect(screen.queryByText('Elsewhere.')).toBeNull();
  await userEvent.click(screen.getByRole('button', { name: /1 of 3 done/ }));
  expect(screen.getByText(/Ines, 2 Jan/)).toBeVisible();
});

test('a step is marked from the version on screen, by key or by hand, once for a double press', async () => {
  show(<Steps job={JOB} stage="prove" />);
  await userEvent.dblClick(screen.getByRole('button', { name: 'Done' }));
  expect(sent).toHaveLength(0); // it has not been on screen long enough to be read
  await new Promise((read) => setTimeout(read, 450));
  await userEvent.dblClick(screen.getByRole('button', { name: 'Done' }));
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]?.url).toContain('/api/jobs/5/steps?unit=mm');
  expect(sent[0]?.body).toMatchObject({ version: 7, step: 'b' });
});

test('after a switch of the unit a change goes from the last version seen, and its answer is kept in its own unit', async () => {
  localStorage.setItem('unit', 'in');
  const stale = { ...JOB, unit: 'in', version: 6 };
  const { kept } = show(<Steps job={stale} stage="prove" />, stale);
  await new Promise((read) => setTimeout(read, 450));
  server.answer = () => Response.json({ ...JOB, unit: 'mm', version: 8 }); // asked for just before the switch
  await userEvent.click(screen.getByRole('button', { name: 'Done' }));
  await waitFor(() => expect(kept(5, 'mm')).toMatchObject({ version: 8 }));
  expect(sent[0]?.body).toMatchObject({ version: 7 });
  expect(kept(5, 'in')).toMatchObject({ unit: 'in' });
});

const SETTING = aSetting({ feelers: ['OLD', 'F-1'] });

test('a try carries the arc as told, its way, both leaves and the feeler set in date', async () => {
  show(<TryForm job={JOB} setting={SETTING} />);
  expect(screen.getByLabelText('Arc clockwise (mm)')).toHaveValue('18.7');
  await userEvent.type(screen.getByLabelText('Leaf that goes (mm)'), '0.14');
  await userEvent.type(screen.getByLabelText(/^Leaf that does not/), '0.16{Enter}');
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]?.body).toMatchObject({
    moved: '18.7',
    way: 'close',
    sets: 'gap',
    checks: [{ goes: '0.14', stops: '0.16', gauge: 'F-1', read: '' }],
  });
});

test('on a left-hand thread closing is counterclockwise', () => {
  const left = { ...SETTING, means: byHousing({ hand: 'left', arc: '18.7' }) };
  show(<TryForm job={JOB} setting={left} />);
  expect(screen.getByLabelText('Arc counterclockwise (mm)')).toBeVisible();
});

test('by another gauge it is one reading, with a gauge that is no feeler', async () => {
  show(<TryForm job={JOB} setting={SETTING} />);
  await userEvent.click(screen.getByRole('button', { name: 'other gauge' }));
  await userEvent.type(screen.getByLabelText('Gap read (mm)'), '0.15{Enter}');
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]?.body).toMatchObject({ checks: [{ read: '0.15', gauge: 'D-1', goes: '', stops: '' }] });
});

test('a refused try keeps everything that was typed, and the retry has the same identity', async () => {
  const problem = {
    code: 'field',
    problem: 'is not thinner.',
    field: 'feeler',
    hint: '',
    suggestions: [],
    reasons: [],
  };
  server.answer = () => Response.json(problem, { status: 422 });
  show(<TryForm job={JOB} setting={SETTING} />);
  await userEvent.type(screen.getByLabelText('Leaf that goes (mm)'), '0.2');
  await userEvent.type(screen.getByLabelText(/^Leaf that does not/), '0.1{Enter}');
  expect(await screen.findByRole('alert')).toHaveTextContent('Feeler: is not thinner.');
  expect(screen.getByLabelText('Leaf that goes (mm)')).toHaveValue('0.2');
  await userEvent.click(screen.getByRole('button', { name: 'Record try 1' }));
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]?.body.id).toBe(sent[0]?.body.id);
});

test('no more gaskets can be put in than shelf and pump have, and none less than nothing', async () => {
  const means = byGaskets({ now: [aPiece(100, 1)], next: [aPiece(100, 1)], box: [aPiece(100, 1)] });
  show(<TryForm job={JOB} setting={{ ...SETTING, means }} />);
  const [less, more] = [/one less of 0.1/, /one more of 0.1/].map((name) =>
    screen.getByRole('button', { name }),
  );
  if (!less || !more) throw new Error('no counter');
  await userEvent.click(more);
  expect(screen.getByRole('status', { name: /0.1, Gaskets under the head/ })).toHaveTextContent('2');
  expect(more).toBeDisabled();
  await userEvent.click(less);
  await userEvent.click(less);
  expect(less).toBeDisabled();
});

test('a step that waits for its work is not done by key or by hand, and says why', async () => {
  show(<Steps job={JOB} stage="build" />);
  expect(screen.getByText(/next comes ring 2/)).toBeInTheDocument();
  expect(screen.getByRole('button', { name: 'Done' })).toBeDisabled();
  await new Promise((done) => setTimeout(done, 450));
  await userEvent.keyboard('d');
  expect(sent).toEqual([]);
});

const pile = (leaves: string, thickness: string) => ({ leaves, thickness, expanded: '0.004' });
const proofs = [
  { gauge: 'OLD', go: null, stop: pile('0.18', '0.18') },
  { gauge: 'F-1', go: pile('0.03 + 0.10', '0.13'), stop: pile('0.18', '0.18') },
];

test('the leaves that prove the window are told for the set in hand, and taken over with one press', async () => {
  const gaps = SETTING.gaps.map((g) => ({ ...g, proofs }));
  show(<TryForm job={JOB} setting={{ ...SETTING, gaps }} />);
  expect(screen.getByText('0.03 + 0.10')).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'fill in' }));
  await userEvent.click(screen.getByRole('button', { name: /Record try/ }));
  expect(sent[0]?.body).toMatchObject({ checks: [{ goes: '0.13', stops: '0.18', gauge: 'F-1' }] });
  await userEvent.selectOptions(screen.getByLabelText('Checked with'), 'OLD');
  expect(screen.getByText(/OLD makes no pile that must go to prove it/)).toBeInTheDocument();
});

test('two shafts share one shelf, and each gap is checked with its own gauge', async () => {
  const means = byShims({
    shafts: [aShaft('drive shaft', [aPiece(100, 1)]), aShaft('driven shaft', [])],
    box: [aPiece(100, 2)],
  });
  const gaps = [
    aGap('front:1', 'front, drive shaft'),
    aGap('back:1', 'back, drive shaft'),
    aGap('front:2', 'front, driven shaft'),
    aGap('back:2', 'back, driven shaft', { proofs }),
    aGap('differ:front', 'front, one rotor to the other', { derived: true }),
  ];
  show(<TryForm job={JOB} setting={{ ...SETTING, means, gaps }} />);
  const more = screen.getAllByRole('button', { name: /one more of 0.1/ });
  if (!more[1]) throw new Error('no second shaft');
  await userEvent.click(more[1]);
  for (const button of more) expect(button).toBeDisabled(); // two on the shelf, one behind each bearing
  const front = screen.getByRole('group', { name: 'front, drive shaft' });
  await userEvent.selectOptions(screen.getByLabelText('front, drive shaft, checked with'), 'D-1');
  await userEvent.type(within(front).getByLabelText('reads (mm)'), '0.15');
  // the indicator is in hand for the other front, too, and no leaf that was typed becomes a reading
  const other = screen.getByRole('group', { name: 'front, driven shaft' });
  await userEvent.type(within(other).getByLabelText('reads (mm)'), '0.16');
  const back = screen.getByRole('group', { name: 'back, drive shaft' });
  await userEvent.type(within(back).getByLabelText('goes (mm)'), '0.10');
  await userEvent.type(within(back).getByLabelText('does not (mm)'), '0.20');
  await userEvent.click(screen.getByRole('button', { name: 'fill in' })); // the one window leaves are told for
  await userEvent.selectOptions(screen.getByLabelText('back, drive shaft, checked with'), 'D-1');
  const filled = screen.getByRole('group', { name: 'back, driven shaft' });
  expect(within(filled).getByLabelText('goes (mm)')).toHaveValue('0.13');
  await userEvent.selectOptions(screen.getByLabelText('back, drive shaft, checked with'), 'F-1');
  await userEvent.click(screen.getByRole('button', { name: 'Record try 1' }));
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]?.body).toMatchObject({ stacks_um: [[100], [100]] });
  expect(sent[0]?.body.checks).toEqual([
    { read: '0.15', goes: '', stops: '', gauge: 'D-1' },
    { read: '', goes: '0.10', stops: '0.20', gauge: 'F-1' },
    { read: '0.16', goes: '', stops: '', gauge: 'D-1' },
    { read: '', goes: '0.13', stops: '0.18', gauge: 'F-1' },
  ]);
});

test('a timing gear is turned towards the side the move names, by nothing at the first check', async () => {
  const means = byTiming({
    toward: 'right',
    arc: '0.05',
    angle_deg: 0.05,
    pitch: '120 mm',
    marked: '120 mm',
  });
  const gaps = [aGap('mesh:left', 'mesh gap, left'), aGap('mesh:right', 'mesh gap, right')];
  const mesh = { ...SETTING, sets: 'mesh', means, gaps, tries: [aTry(1)] };
  const { unmount } = show(<TryForm job={JOB} setting={{ ...mesh, tries: [] }} />);
  expect(screen.queryByLabelText('towards the')).toBeNull();
  unmount();
  show(<TryForm job={JOB} setting={mesh} />);
  expect(screen.getByLabelText('towards the')).toHaveValue('right');
  await userEvent.click(screen.getByRole('button', { name: 'Record try 2' }));
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]?.body).toMatchObject({ sets: 'mesh', way: 'right', moved: '0.05', stacks_um: [] });
});
