import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { Job, Packing, Stack, StackPart, Tightening } from '../../api/client';
import { KeyProvider } from '../../app/keys';
import { UnitProvider } from '../../app/unit';
import { BoltCircle } from '../../drawing/BoltCircle';
import { JointEnds } from '../../drawing/JointEnds';
import { StackDrawing } from '../../drawing/StackDrawing';
import { StackWork } from './StackWork';
import { TorqueWork } from './TorqueWork';

const sent: { url: string; body: Record<string, unknown> }[] = [];
let status: number;

beforeEach(() => {
  localStorage.clear();
  sent.length = 0;
  status = 200;
  vi.stubGlobal('fetch', async (request: Request) => {
    sent.push({ url: request.url, body: (await request.json()) as Record<string, unknown> });
    const wrong = {
      code: 'field',
      field: 'part',
      problem: 'out of order.',
      hint: '',
      suggestions: [],
      reasons: [],
    };
    return status === 200 ? Response.json(JOB) : Response.json(wrong, { status });
  });
});
afterEach(() => vi.unstubAllGlobals());

function part(key: string, more: Partial<StackPart> = {}): StackPart {
  return {
    key,
    name: key,
    shape: 'washer',
    points: '',
    directions: [],
    note: '',
    must_be_new: false,
    fresh: false,
    lines: [],
    picture: '',
    fitted: false,
    reused: false,
    reason: '',
    by: '',
    at: null,
    ...more,
  };
}

const STACK: Stack = {
  place: 'bearing',
  name: 'Thrust bearing housing',
  next: 'Lip seal',
  ends: [],
  advice: '',
  parts: [
    part('Half rings', { shape: 'half ring', fitted: true, by: 'Ines' }),
    part('Lip seal', {
      shape: 'lip seal',
      points: 'drive',
      directions: ['lip outward', 'tab to the slot of the shaft'],
      must_be_new: true,
    }),
    part('Nut', { shape: 'nut', points: 'rotor' }),
  ],
};
const TIGHTENING: Tightening = {
  key: 'head bolts',
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
const JOB = {
  number: 5,
  version: 7,
  unit: 'mm',
  signed: null,
  gauges: [{ tag: 'W-1', kind: 'torque wrench', range: '10 to 250 N·m', certificate: '', overdue: false }],
  building: { lubricant: 'soap', lubricants: [], pictures: [], tightenings: [TIGHTENING], stacks: [STACK] },
} as unknown as Job;

function show(children: ReactNode) {
  const client = new QueryClient({ defaultOptions: { mutations: { retry: false } } });
  client.setQueryData(['job', 5, 'mm'], JOB);
  return render(
    <QueryClientProvider client={client}>
      <UnitProvider>
        <KeyProvider>{children}</KeyProvider>
      </UnitProvider>
    </QueryClientProvider>,
  );
}

test('a stack is drawn in its order, what is in, next and later apart, and said', () => {
  const { container } = render(<StackDrawing stack={STACK} chosen="Lip seal" onChoose={vi.fn()} />);
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

test('by keys: each direction confirmed, then fitted, from the version on screen', async () => {
  show(<StackWork job={JOB} stack={STACK} />);
  await userEvent.keyboard('c');
  expect(screen.getByLabelText('lip outward')).toBeChecked();
  expect(screen.getByLabelText(/tab to the slot/)).not.toBeChecked();
  await userEvent.keyboard('c');
  await userEvent.keyboard('f');
  expect(sent).toHaveLength(1);
  expect(sent[0]?.url).toContain('/api/jobs/5/parts');
  expect(sent[0]?.body).toMatchObject({ part: 'Lip seal', stack: 'bearing', confirmed: true, version: 7 });
});

test('unconfirmed or out of order it is sent as it is, and what stops it is shown', async () => {
  status = 422;
  show(<StackWork job={JOB} stack={STACK} />);
  await userEvent.click(screen.getByRole('button', { name: 'Fitted' }));
  expect(sent[0]?.body).toMatchObject({ confirmed: false });
  expect(await screen.findByRole('alert')).toHaveTextContent('out of order');
});

test('the old one of what is always new asks why', async () => {
  show(<StackWork job={JOB} stack={STACK} />);
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
  show(<TorqueWork job={JOB} one={TIGHTENING} />);
  await userEvent.keyboard('4');
  await userEvent.type(screen.getByLabelText(/Torque the wrench/), '2{Enter}');
  expect(sent[0]?.body).toMatchObject({ bolts: [3], pass_number: 1, wrench: 'W-1', adapter: '' });
  await userEvent.type(screen.getByLabelText(/Torque the wrench/), '{Shift>}{Enter}{/Shift}');
  expect(sent[1]?.body).toMatchObject({ bolts: [3, 2, 4] });
});

test('joints stand where the clock says, the lantern ring between', () => {
  const packing: Packing = { lines: [], joints_deg: [0, 90, 180], lantern_after: 2, school: '' };
  const { container } = render(<JointEnds packing={packing} />);
  const turns = [...container.querySelectorAll('.joint')].map((j) => j.getAttribute('transform'));
  expect(turns).toEqual(['rotate(0)', 'rotate(90)', 'rotate(180)']);
  const words = [...container.querySelectorAll('g .note')].map((t) => t.textContent);
  expect(words).toEqual(["12 o'clock", "3 o'clock", 'lantern', "6 o'clock"]);
});
