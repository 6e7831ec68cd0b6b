import { expect, test } from 'vitest';
import type { Job } from '../../api/client';
import { isStage, nextStage, openIn, passedOver, presentStage, STAGES } from './stages';
import { aJob, aStep } from '../../test-builders';
import { aSetting, aTry } from '../../test-settings';

function job(open: string[], more: Partial<Job> = {}): Job {
  const stages = STAGES.map(([key]) => ({ key, done: open.includes(key) ? 1 : 3, of: 3 }));
  return aJob({ stages, ...more });
}

test('a job opens where the work stands', () => {
  expect(presentStage(job(['inspect', 'prove']))).toBe('inspect');
  expect(presentStage(job([]))).toBe('close');
  expect(
    presentStage(job(['prepare'], { signed: { by: '', at: '', reason: '', core_version: '', own: false } })),
  ).toBe('close');
});

test('stages follow in working order, and the last has no next', () => {
  const walked = STAGES.map(([key]) => nextStage(key));
  expect(walked).toEqual(['strip', 'inspect', 'decide', 'build', 'set', 'prove', 'close', 'close']);
  expect(isStage('set')).toBe(true);
  expect(isStage('elsewhere')).toBe(false);
  expect(isStage(undefined)).toBe(false);
});

test('hold points passed over are those undone in an earlier stage', () => {
  const step = (key: string, stage: string, hold: boolean, by: string | null) =>
    aStep({ key, stage, hold, by });
  const steps = [
    step('isolate', 'prepare', true, null),
    step('drain', 'prepare', true, 'Ines'),
    step('tools', 'prepare', false, null),
    step('free_turn', 'prove', true, null),
  ];
  const over = (stage: 'prepare' | 'strip' | 'close') =>
    passedOver(job([], { steps }), stage).map((s) => s.key);
  expect(over('prepare')).toEqual([]);
  expect(over('strip')).toEqual(['isolate']);
  expect(over('close')).toEqual(['isolate', 'free_turn']);
});

test('the ribbon says what is open in each', () => {
  const half = job(['decide', 'prepare', 'set']);
  expect(openIn(half, 'prepare')).toBe('1 of 3');
  expect(openIn(half, 'decide')).toBe('2 open');
  const tried = aSetting({ tries: [aTry(2)] });
  expect(openIn(job(['set'], { setting: tried }), 'set')).toBe('try 2, 2 open');
  expect(openIn(job([], { setting: tried }), 'set')).toBe('right');
  expect(openIn(job([]), 'decide')).toBe('');
});
