import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { expect, test, vi } from 'vitest';
import type { Grease, Job, Packing, Picture, Stack, StackPart, Tightening } from '../../api/client';
import { BoltCircle } from '../../drawing/BoltCircle';
import { JointEnds } from '../../drawing/JointEnds';
import { StackDrawing } from '../../drawing/StackDrawing';
import { refusal, showOnBench, stubServer } from '../../test-bench';
import { StackTask } from './StackTask';
import { GreaseTask } from './GreaseTask';
import { PictureTask, SmallPicture } from './PictureTask';
import { TorqueTask } from './TorqueTask';
import { aGauge, aJob } from '../../test-builders';

const server = stubServer(() => Response.json(JOB));
const { sent } = server;

function part(key: string, more: Partial<StackPart> = {}): StackPart {
  return {
    id: '',
    key,
    name: key,
    shape: 'washer',
    points: '',
    on: 'On the shaft',
    directions: [],
    lubricant: '',
    note: '',
    must_be_new: false,
    fresh: false,
    lines: [],
    picture: '',
    fitted: false,
    reused: false,
    reason: '',
    by: '',
    at: '',
    ...more,
  };
}

const STACK: Stack = {
  kind: 'stack',
  key: 'stack:bearing',
  place: 'bearing',
  name: 'Thrust bearing housing',
  next: 'Lip seal',
  carriers: [
    { name: 'On the shaft', left: 'rotor', right: 'drive', parts: ['Half rings', 'Nut'] },
    { name: 'On the bench', left: 'pump', right: 'drive', parts: ['Lip seal'] },
  ],
  together: ['Half rings', 'Nut', 'Lip seal'],
  advice: '',
  parts: [
    part('Half rings', { id: 'p1', shape: 'half ring', fitted: true, by: 'Ines' }),
    part('Lip seal', {
      shape: 'lip seal',
      on: 'On the bench',
      points: 'drive',
      directions: ['lip outward', 'tab to the slot of the shaft'],
      must_be_new: true,
    }),
    part('Nut', { shape: 'nut', points: 'rotor' }),
  ],
};
const TIGHTENING: Tightening = {
  kind: 'torque',
  key: 'torque:head bolts',
  fastener_key: 'head bolts',
  fastener: 'Head bolts',
  torque: '40 to 44',
  condition: 'oiled',
  page: '',
  count: 4,
  order: [1, 3, 2, 4],
  passes: [{ number: 1, torque: '40 N·m to 44 N·m', done: 1 }],
  pass_number: 1,
  left: [3, 2, 4],
  middle: '42 N·m',
  wrench: 'W-1',
  lines: [],
  log: [],
};
const JOB = aJob({
  gauges: [aGauge('W-1', 'torque wrench', { range: '10 to 250 N·m' })],
  building: { lubricant: 'soap', lubricants: [], pictures: [], gun: '', guns: [] },
  tasks: [TIGHTENING, STACK],
});

/** A row of its own for all its parts. */
const ALL = { name: 'On the shaft', left: 'rotor', right: 'drive', parts: STACK.parts.map((p) => p.key) };

const show = (children: ReactNode) => showOnBench(children, JOB);

test('a stack is drawn in its order, what is in, next and later apart, and said', () => {
  const { container } = render(
    <StackDrawing stack={STACK} carrier={ALL} chosen="Lip seal" onChoose={vi.fn()} />,
  );
  const states = [...container.querySelectorAll('.stack-part')].map((g) => g.getAttribute('class'));
  expect(states).toEqual(['stack-part is-in', 'stack-part is-next chosen', 'stack-part is-later']);
  const at = [...container.querySelectorAll('.stack-ring')].map((c) => Number(c.getAttribute('cx')));
  expect(at).toEqual([...at].sort((a, b) => a - b));
  // a part that points towards the rotor is the mirror image
  const turned = [...container.querySelectorAll('.stack-part')].map(
    (g) => /scale\((-?)/.exec(g.querySelector('g')?.getAttribute('transform') ?? '')?.[1],
  );
  expect(turned).toEqual(['', '', '-']);
  expect(screen.getByRole('img')).toHaveAccessibleName(/2 Lip seal pointing to the drive.*Next: Lip seal/);
});

test('of a long stack the part in hand is drawn with its neighbours, numbered as they are', () => {
  const parts = Array.from({ length: 40 }, (_, i) => part(`P${i + 1}`));
  const stack = { ...STACK, parts, next: 'P1' };
  const row = { ...ALL, parts: parts.map((p) => p.key) };
  const numbers = (chosen: string) => {
    const { container, unmount } = render(
      <StackDrawing stack={stack} carrier={row} chosen={chosen} onChoose={vi.fn()} />,
    );
    const found = [...container.querySelectorAll('.stack-number')].map((n) => Number(n.textContent));
    unmount();
    return [found[0], found.length, found.at(-1)];
  };
  expect(numbers('P1')).toEqual([1, 12, 12]);
  expect(numbers('P20')).toEqual([14, 12, 25]);
  expect(numbers('P40')).toEqual([29, 12, 40]);
});

test('each sub-assembly has its row, that of the part in hand first, and all lie together', async () => {
  show(<StackTask job={JOB} view={STACK} />);
  const drawn = () => screen.getByRole('img').getAttribute('aria-label');
  expect(drawn()).toMatch(
    /On the bench, from the pump to the drive: 2 Lip seal pointing to the drive\. Next/,
  );
  await userEvent.click(screen.getByRole('button', { name: 'On the shaft 1/2' }));
  expect(drawn()).toMatch(
    /On the shaft, from the rotor to the drive: 1 Half rings, 3 Nut pointing to the rotor/,
  );
  await userEvent.click(screen.getByRole('button', { name: 'Together' }));
  expect(drawn()).toMatch(/together, from the rotor to the drive: 1 Half rings, 3 Nut.*, 2 Lip seal/);
});

test('by keys: each direction confirmed, then fitted, from the version on screen', async () => {
  show(<StackTask job={JOB} view={STACK} />);
  await userEvent.keyboard('c');
  expect(screen.getByLabelText('lip outward')).toBeChecked();
  expect(screen.getByLabelText(/tab to the slot/)).not.toBeChecked();
  await userEvent.keyboard('c');
  await userEvent.keyboard('f');
  expect(sent).toHaveLength(1);
  expect(sent[0]?.url).toContain('/api/jobs/5/parts');
  expect(sent[0]?.body).toMatchObject({ part: 'Lip seal', stack: 'bearing', confirmed: true, version: 7 });
});

test('a part with nothing to confirm is not ticked before it can have been read', async () => {
  const stack = { ...STACK, next: 'Nut', parts: STACK.parts.map((p) => ({ ...p, fitted: p.key !== 'Nut' })) };
  show(<StackTask job={JOB} view={stack} />);
  await userEvent.keyboard('f');
  expect(sent).toHaveLength(0);
  await new Promise((later) => setTimeout(later, 450));
  await userEvent.keyboard('f');
  expect(sent[0]?.body).toMatchObject({ part: 'Nut' });
});

test('unconfirmed or out of order it is sent as it is, and what stops it is shown', async () => {
  server.answer = () => refusal({ field: 'part', problem: 'out of order.' });
  show(<StackTask job={JOB} view={STACK} />);
  await userEvent.click(screen.getByRole('button', { name: 'Fitted' }));
  expect(sent[0]?.body).toMatchObject({ confirmed: false });
  expect(await screen.findByRole('alert')).toHaveTextContent('out of order');
});

test('the old one of what is always new asks why', async () => {
  show(<StackTask job={JOB} view={STACK} />);
  expect(screen.queryByLabelText(/Why this lip seal/)).toBeNull();
  await userEvent.click(screen.getByRole('button', { name: 'The old one goes back' }));
  await userEvent.type(screen.getByLabelText(/Why this lip seal/), 'spare on order');
  await userEvent.click(screen.getByRole('button', { name: 'Fitted, the old one' }));
  expect(sent[0]?.body).toMatchObject({ reused: true, reason: 'spare on order' });
});

test('fasteners stand clockwise from the top; the next of the pass is marked', () => {
  const { container } = render(<BoltCircle order={[1, 3, 2, 4]} left={[3, 2, 4]} />);
  const bolts = [...container.querySelectorAll('.bolt')];
  expect(bolts.map((b) => b.getAttribute('class'))).toEqual([
    'bolt is-done',
    'bolt is-next',
    'bolt is-left',
    'bolt is-left',
  ]);
  const [first, third] = bolts.map((b) => Number(b.querySelector('circle')?.getAttribute('cy')));
  expect(first).toBeLessThan(third ?? 0); // 1 at the top, 3 below it
  expect(screen.getByRole('img')).toHaveAccessibleName(/Next is number 3/);
});

test('Enter logs the next fastener, Shift and Enter all that are left of the pass', async () => {
  show(<TorqueTask job={JOB} view={TIGHTENING} />);
  await userEvent.keyboard('4');
  await userEvent.type(screen.getByLabelText(/Torque the wrench/), '2{Enter}');
  expect(sent[0]?.body).toMatchObject({ bolts: [3], pass_number: 1, wrench: 'W-1', adapter: '' });
  // a double press logs one
  await userEvent.type(screen.getByLabelText(/Torque the wrench/), '{Enter}');
  expect(sent).toHaveLength(1);
  await new Promise((later) => setTimeout(later, 450));
  await userEvent.type(screen.getByLabelText(/Torque the wrench/), '{Shift>}{Enter}{/Shift}');
  expect(sent[1]?.body).toMatchObject({ bolts: [3, 2, 4] });
});

test('joints stand where the clock says, the lantern ring between', () => {
  const packing: Packing = {
    kind: 'packing',
    key: 'packing',
    lines: [],
    joints_deg: [0, 90, 180],
    lantern_after: 2,
    school: '',
  };
  const { container } = render(<JointEnds packing={packing} />);
  const turns = [...container.querySelectorAll('.joint')].map((j) => j.getAttribute('transform'));
  expect(turns).toEqual(['rotate(0)', 'rotate(90)', 'rotate(180)']);
  const words = [...container.querySelectorAll('g .note')].map((t) => t.textContent);
  expect(words).toEqual(["12 o'clock", "3 o'clock", 'lantern', "6 o'clock"]);
});

test('with an adapter the setting is told before it is made, and the lengths go with the log', async () => {
  const line = { name: 'Set the wrench to', text: '39.5 N·m', status: 'good', working: null };
  show(<TorqueTask job={JOB} view={TIGHTENING} />);
  server.answer = () => Response.json([line]);
  await userEvent.click(screen.getByRole('button', { name: 'With an adapter' }));
  await userEvent.type(screen.getByLabelText(/drive to grip/), '400');
  await userEvent.type(screen.getByLabelText(/drive to nut/), '25');
  expect(await screen.findByText('39.5 N·m')).toBeInTheDocument();
  expect(sent.at(-1)).toMatchObject({
    body: { given: { torque: '42 N·m', wrench: '400', adapter: '25', angle: '0' } },
  });
  server.answer = () => Response.json(JOB);
  await userEvent.type(screen.getByLabelText(/Torque the wrench/), '39.5{Enter}');
  expect(sent.at(-1)?.body).toMatchObject({ wrench_length: '400', adapter: '25', angle: '0', typed: '39.5' });
});

test('a torque is struck out with its reason; a struck one stays readable', async () => {
  const mark = {
    id: 'm1',
    pass_number: 1,
    bolts: [1],
    typed: '42 N.m',
    at_nut: '42.0 N·m',
    adapter: '',
    wrench: 'W-1',
    certificate: '',
    overdue: true,
    by: 'Ines',
    at: '2026-01-02T03:04:05Z',
    struck_reason: '',
  };
  const struck = { ...mark, id: 'm0', struck_reason: 'wrong wrench' };
  show(<TorqueTask job={JOB} view={{ ...TIGHTENING, log: [struck, mark] }} />);
  expect(screen.getByText(/Struck out: wrong wrench/)).toBeInTheDocument();
  expect(screen.getAllByText(/no certificate, out of date/)).toHaveLength(2);
  await userEvent.click(screen.getByRole('button', { name: 'strike out: Head bolts 42 N.m' }));
  await userEvent.type(screen.getByLabelText(/^Why is it struck out/), 'gasket slipped{Enter}');
  expect(sent[0]).toMatchObject({ body: { kind: 'torque', record: 'm1', reason: 'gasket slipped' } });
});

test('a picture stands right beside wrong; beside a part that points to the rotor it is mirrored', () => {
  const marks = [{ style: 'hatched', path: 'M0 0h1' }];
  const picture: Picture = {
    kind: 'picture',
    key: 'lip',
    name: 'Lip',
    right: marks,
    right_words: 'Outward.',
    wrong: marks,
    wrong_words: 'Inward.',
    labels: [{ x: 10, y: 20, text: 'bearing' }],
  };
  const { unmount } = render(<PictureTask view={picture} />);
  expect(screen.getByRole('img', { name: 'Right: Outward.' })).toHaveTextContent('bearing');
  expect(screen.getByRole('img', { name: 'Wrong: Inward.' })).toBeInTheDocument();
  unmount();
  const { container } = render(<SmallPicture picture={picture} mirrored />);
  const turned = [...container.querySelectorAll('svg > g')].map((g) => g.getAttribute('transform'));
  expect(turned).toEqual(Array(2).fill('translate(300 0) scale(-1 1)'));
  expect(container).not.toHaveTextContent('bearing');
});

test('what has to be asked is asked for in words before an elastomer goes in', async () => {
  const ask = { name: 'FKM in the liquid', text: 'Unknown: ask.', status: 'ask', working: null };
  const stack = {
    ...STACK,
    parts: STACK.parts.map((p) => (p.fitted ? p : { ...p, lines: [ask], directions: [] })),
  };
  show(<StackTask job={JOB} view={stack} />);
  expect(screen.getByText('ask:')).toBeInTheDocument();
  await new Promise((later) => setTimeout(later, 450));
  await userEvent.type(screen.getByLabelText(/Who was asked/), 'seal maker: fine{Enter}');
  expect(sent[0]?.body).toMatchObject({ confirmed: true, reason: 'seal maker: fine' });
});

test('a fitted part is taken out again; of a signed job nothing is', async () => {
  const { unmount } = show(<StackTask job={JOB} view={STACK} />);
  await userEvent.click(screen.getByRole('button', { name: 'take out again: Half rings' }));
  await userEvent.type(screen.getByLabelText(/What came after it comes out, too/), 'upside down{Enter}');
  expect(sent[0]).toMatchObject({ body: { kind: 'part', record: 'p1', reason: 'upside down' } });
  unmount();
  show(<StackTask job={{ ...JOB, signed: {} } as Job} view={STACK} />);
  expect(screen.queryByRole('button', { name: /out again|Fitted/ })).toBeNull();
  expect(screen.getByLabelText('lip outward')).toBeDisabled();
});

test('grease: the gun in hand with its weight; without sizes the manual is asked', async () => {
  const gun = { tag: 'G-1', grease: 'lithium', ten: '5.0 g', weighed: '2026-01-02' };
  const lines = [{ name: 'Strokes', text: '31', status: 'good', working: null }];
  const job = { ...JOB, building: { ...JOB.building, gun: 'G-1', guns: [gun] } };
  const view: Grease = { kind: 'grease', key: 'grease', bearings: [{ name: 'Thrust', oil: false, lines }] };
  const { unmount } = show(<GreaseTask job={job} view={view} />);
  expect(screen.getByText(/Ten strokes of G-1 weighed 5.0 g/)).toBeInTheDocument();
  await userEvent.selectOptions(screen.getByLabelText('Grease gun'), 'none');
  expect(sent[0]).toMatchObject({ body: { gun: '' } });
  unmount();
  show(<GreaseTask job={job} view={{ ...view, bearings: [] }} />);
  expect(screen.getByText(/by the maker's manual/)).toBeInTheDocument();
});
