import { expect, test } from 'vitest';
import { aJob } from '../test-builders';
import { heldBy, joined } from './sections';

const section = (tag: string, value: unknown) => ({ tag, value });

const FIRST = {
  sections: {
    self: section('a', { number: 4, version: 7, unit: 'mm' }),
    drawing: section('b', { width: 1, height: 1, marks: [] }),
    'lists/features': section('c', ['bore', 'pin']),
    'features/bore': section('d', { key: 'bore', done: false }),
    'features/bore/readings': section('e', []),
    'features/pin': section('f', { key: 'pin', done: true }),
    'features/pin/readings': section('g', [{ id: 'r' }]),
    'lists/log': section('h', []),
  },
};

test('a job is put together of its sections', () => {
  expect(joined(undefined, FIRST)).toEqual({
    number: 4,
    version: 7,
    unit: 'mm',
    drawing: { width: 1, height: 1, marks: [] },
    features: [
      { key: 'bore', done: false, readings: [] },
      { key: 'pin', done: true, readings: [{ id: 'r' }] },
    ],
    log: [],
  });
});

test('what is not answered stays as it was held, the same object; what is gone is no longer held', () => {
  const before = joined(undefined, FIRST);
  expect(heldBy(before).Held.split(',').sort().join('')).toBe('abcdefgh');
  const after = joined(before, {
    sections: {
      self: section('i', { number: 4, version: 8, unit: 'mm' }),
      'features/bore/readings': section('j', [{ id: 's' }]),
      'lists/log': section('k', ['8']),
      'log/8': section('l', { version: 8 }),
    },
  });
  expect(after.version).toBe(8);
  expect(after.log).toEqual([{ version: 8 }]);
  expect(after.features[0]).toEqual({ key: 'bore', done: false, readings: [{ id: 's' }] });
  expect(after.features[1]).toBe(before.features[1]);
  expect(after.drawing).toBe(before.drawing);
  // the job before is as it was
  expect(before.features[0]?.readings).toEqual([]);
  const last = joined(after, { sections: { 'lists/features': section('m', ['bore']) } });
  expect(last.features).toEqual([after.features[0]]);
  expect(heldBy(last).Held.split(',').sort().join('')).toBe('bdijklm');
});

test('a log of any length makes no request too long', () => {
  const keys = Array.from({ length: 3000 }, (_, i) => String(i));
  const lines = keys.map((key) => [`log/${key}`, section('12345678', { version: key })] as const);
  const job = joined(undefined, {
    sections: { ...FIRST.sections, 'lists/log': section('x', keys), ...Object.fromEntries(lines) },
  });
  expect(job.log).toHaveLength(3000);
  expect(heldBy(job).Held.length).toBeLessThan(8190 / 2);
});

test('a whole job is a job, of which nothing is held', () => {
  const whole = aJob();
  expect(joined(undefined, whole)).toBe(whole);
  expect(heldBy(whole)).toEqual({ Held: '' });
});
