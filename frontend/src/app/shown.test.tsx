import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { ApiError, Unreachable, type Problem } from '../api/client';
import { refusal, showOnBench, stubServer } from '../test-bench';
import { ProblemNote } from './ProblemNote';
import { WorkingLink } from './WorkingLink';

const PROBLEM: Problem = {
  code: 'field',
  problem: 'it is not a length.',
  field: 'bore',
  hint: 'Expected mm.',
  suggestions: [],
  reasons: [],
  reason_wanted: false,
};

test('an error names the field, what is wrong and what was expected', () => {
  render(<ProblemNote error={new ApiError(PROBLEM)} />);
  expect(screen.getByRole('alert')).toHaveTextContent('Bore: it is not a length. Expected mm.');
});

test('an unlikely reading is asked about, with every way out', async () => {
  const [other, meant] = [vi.fn(), vi.fn()];
  const unlikely: Problem = {
    ...PROBLEM,
    code: 'unlikely',
    suggestions: [{ typed: '1.4 in', meaning: 'inches: 35.560 mm' }],
  };
  render(<ProblemNote error={new ApiError(unlikely)} onSuggestion={other} onConfirm={meant} />);
  await userEvent.click(screen.getByRole('button', { name: 'It is inches: 35.560 mm' }));
  expect(other).toHaveBeenCalledWith('1.4 in');
  await userEvent.click(screen.getByRole('button', { name: 'It is meant as typed' }));
  expect(meant).toHaveBeenCalledOnce();
});

test('other errors offer no such way out', () => {
  render(<ProblemNote error={new ApiError(PROBLEM)} onConfirm={vi.fn()} />);
  expect(screen.queryByRole('button')).toBeNull();
});

test('somebody else saved: it says who did what', () => {
  const conflict: Problem = {
    ...PROBLEM,
    code: 'conflict',
    field: '',
    reasons: ['Lena: Idler pin: 29.97 (mm)'],
  };
  render(<ProblemNote error={new ApiError(conflict)} />);
  expect(screen.getByRole('alert')).toHaveTextContent('Lena: Idler pin: 29.97 (mm)');
  expect(screen.getByRole('alert')).toHaveTextContent('save yours again');
});

test('no answer from the server is said, and nothing is shown when nothing is wrong', () => {
  const { rerender } = render(<ProblemNote error={new Unreachable()} />);
  expect(screen.getByRole('alert')).toHaveTextContent('Nothing typed is lost');
  rerender(<ProblemNote error={null} />);
  expect(screen.queryByRole('alert')).toBeNull();
});

const WORKING = {
  title: 'Turn of the bearing housing',
  formula: 's = c·π·D / lead',
  given: [{ symbol: 'D', meaning: 'outside diameter', text: '124.00 mm' }],
  result: '46.7 mm',
  source: 'screw geometry',
  notes: ['Right-hand thread.'],
};
const SAID = ['s = c·π·D / lead', '124.00 mm', '46.7 mm', 'screw geometry', 'Right-hand thread.'];

test('a working opens with formula, numbers, result and source', async () => {
  render(<WorkingLink working={WORKING} />);
  await userEvent.click(screen.getByRole('button', { name: 'working: Turn of the bearing housing' }));
  const dialog = await screen.findByRole('dialog');
  for (const said of SAID) expect(dialog).toHaveTextContent(said);
});

const server = stubServer(() => Response.json(WORKING));

test('a working that only its place is known of is asked for when it is opened, and again when that fails', async () => {
  showOnBench(<WorkingLink working={{ title: WORKING.title, at: '/api/jobs/4/workings/choice/working' }} />);
  expect(server.sent).toEqual([]);
  server.answer = () => refusal({ problem: 'not now.' });
  await userEvent.click(screen.getByRole('button', { name: 'working: Turn of the bearing housing' }));
  const dialog = await screen.findByRole('dialog');
  const again = await screen.findByRole('button', { name: 'Try again' });
  server.answer = () => Response.json(WORKING);
  await userEvent.click(again);
  expect(await screen.findByText('= 46.7 mm')).toBeInTheDocument();
  for (const said of SAID) expect(dialog).toHaveTextContent(said);
  expect(server.sent[0]?.url).toBe('http://localhost:3000/api/jobs/4/workings/choice/working?unit=mm');
});
