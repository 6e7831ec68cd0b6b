import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import type { Feature, Job, Line } from '../../api/client';
import { Lines } from '../../app/Lines';
import { showOnBench, stubServer } from '../../test-bench';
import { Build } from './Build';
import { drawn } from '../job/stages';
import { Sizes } from '../tasks/Sizes';
import { aFeature, aJob, aStep } from '../../test-builders';

stubServer(() => Response.json(JOB));

const feature = (key: string, more: Partial<Feature> = {}) =>
  aFeature({ key, name: key, kind: 'check', ...more });
const CHANGED: Feature['decision'] = {
  id: 'd',
  decided: 'change',
  reason: '',
  parts: [],
  by: 'Ines',
  at: '',
};
const PICTURE = {
  key: 'pin',
  name: 'Pin',
  right: [],
  right_words: '',
  wrong: [],
  wrong_words: '',
  labels: [],
};
const PRESS = {
  how: '',
  name: 'Bushing',
  said: '',
  features: ['outside'],
  bore: 'bore',
  lines: [],
  ready: false,
};
const JOB = aJob({
  steps: [
    aStep({ stage: 'build', key: 'clean', text: 'All clean.' }),
    aStep({
      stage: 'build',
      key: 'press',
      text: 'Bushing in; measured after.',
      tasks: ['press:bushing'],
      measures: ['bore'],
    }),
    aStep({ stage: 'build', key: 'pin', text: 'Pin towards the ports, seen.', tasks: ['picture:pin'] }),
  ],
  features: [
    feature('outside', { press: 'bushing' }),
    feature('bore', { decision: CHANGED }),
    feature('idler', { decision: CHANGED }),
  ],
  tasks: [
    { ...PRESS, kind: 'press', key: 'press:bushing' },
    { ...PICTURE, kind: 'picture', key: 'picture:pin' },
  ],
});
const picker = () => screen.getByRole<HTMLSelectElement>('combobox', { name: 'Work in hand' });
const withDone = (...keys: string[]): Job => ({
  ...JOB,
  steps: JOB.steps.map((s) => (keys.includes(s.key) ? { ...s, by: 'Ines', at: '2026-01-02T03:04:05Z' } : s)),
});

test('each step with work has a page; what no step measures has one of its own', () => {
  showOnBench(<Build job={JOB} />, JOB);
  expect([...picker().options].map((o) => o.textContent)).toEqual([
    'Nothing to calculate or to log at this step',
    'Bushing in',
    'Pin towards the ports',
    'What else is new: measured or confirmed',
  ]);
});

test('the page follows the step in hand, and is the first where all is done', () => {
  const { unmount } = showOnBench(<Build job={withDone('clean')} />, JOB);
  expect(picker()).toHaveValue('press');
  expect(screen.getByRole('button', { name: /^outside/ })).toBeInTheDocument();
  expect(screen.getByRole('button', { name: /^bore/ })).toBeInTheDocument();
  unmount();
  showOnBench(<Build job={withDone('clean', 'press', 'pin')} />, JOB);
  expect(picker()).toHaveValue('press');
});

test('arrows go through the pages, round to the first', async () => {
  showOnBench(<Build job={JOB} />, JOB);
  for (const page of ['press', 'pin', 'rest', 'press']) {
    await userEvent.keyboard('{ArrowDown}');
    expect(picker()).toHaveValue(page);
  }
  await userEvent.keyboard('{ArrowUp}');
  expect(picker()).toHaveValue('rest');
  expect(screen.getByRole('button', { name: /^idler/ })).toBeInTheDocument();
});

test('from a part the next one follows, also while one before it waits for its answers', async () => {
  const seen = { damages: [], words: 'sound', note: '', by: 'Ines', at: '' };
  const three = [feature('a'), feature('b', { look_left: seen }), feature('c')];
  showOnBench(<Sizes job={JOB} features={three} />, JOB);
  await userEvent.click(screen.getByRole('button', { name: /^b/ }));
  await userEvent.click(screen.getByRole('button', { name: 'Next part' }));
  expect(screen.getByRole('button', { name: /^c/ })).toHaveAttribute('aria-pressed', 'true');
});

test('sizes of parts about to be pressed are not on the drawing', () => {
  expect(drawn(JOB).map((f) => f.key)).toEqual(['bore', 'idler']);
});

test('how a result stands is said by word and shape, not by colour alone', () => {
  const line = (status: string): Line => ({ name: `a ${status}`, text: 'result', status, working: null });
  const { container } = render(<Lines lines={['good', 'care', 'ask', 'stop'].map(line)} />);
  expect([...container.querySelectorAll('.status-word')].map((b) => b.textContent)).toEqual([
    'with care: ',
    'ask: ',
    'stop: ',
  ]);
  const shapes = [...container.querySelectorAll('.status-mark')].map((s) => s.innerHTML);
  expect(new Set(shapes).size).toBe(3);
});
