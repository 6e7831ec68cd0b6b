import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { ApiError, Unreachable, type Problem } from '../api/client';
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

test('a working opens with formula, numbers, result and source', async () => {
  const working = {
    title: 'Turn of the bearing housing',
    formula: 's = c·π·D / lead',
    given: [{ symbol: 'D', meaning: 'outside diameter', text: '124.00 mm' }],
    result: '46.7 mm',
    source: 'screw geometry',
    notes: ['Right-hand thread.'],
  };
  render(<WorkingLink working={working} />);
  await userEvent.click(screen.getByRole('button', { name: 'working: Turn of the bearing housing' }));
  const dialog = await screen.findByRole('dialog');
  for (const said of ['s = c·π·D / lead', '124.00 mm', '46.7 mm', 'screw geometry', 'Right-hand thread.']) {
    expect(dialog).toHaveTextContent(said);
  }
});
