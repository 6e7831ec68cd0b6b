import { expect, test } from 'vitest';
import { aFeature, aGauge, aJob, aReading } from '../../test-builders';
import { nextFree, padFor, padReducer, turned } from './padState';

const STATIONS = ['12', '3', '6'].map((d) => ({ key: d, plane: '', direction: d, label: d }));
const FEATURE = aFeature({
  stations: STATIONS,
  made: ['M-4'],
  fits: [{ tag: 'M-4', decides: true, sentence: '', working: null }],
});
const JOB = aJob({
  gauges: [
    aGauge('F-2', 'feeler set'),
    aGauge('M-4', 'outside micrometer'),
    aGauge('W-1', 'torque wrench', { lengths: false }),
  ],
});
const PAD = padFor(JOB, FEATURE, new Set(['12']));

test('a part comes into hand at its first free station, with the gauge made for it or the one last used', () => {
  expect([PAD.station, PAD.gauge, PAD.goes]).toEqual(['3', 'M-4', null]);
  const used = { ...FEATURE, readings: [aReading({ gauge: 'F-2' })] };
  expect(padFor(JOB, used, new Set(['12', '3', '6']))).toMatchObject({ station: '12', gauge: 'F-2' });
  expect(padFor(JOB, { ...FEATURE, made: [], stations: [] }, new Set())).toMatchObject({
    station: '',
    gauge: 'F-2',
  });
});

test('the next free station is the one after, round to those before, and none that is held', () => {
  expect(nextFree(STATIONS, '3', new Set(['3']))).toBe('6');
  expect(nextFree(STATIONS, '6', new Set(['6', '12']))).toBe('3');
  expect(nextFree(STATIONS, '6', new Set(['12', '3', '6']))).toBeUndefined();
  expect(nextFree(STATIONS, 'gone', new Set())).toBe('12');
});

test('after a reading the next station is in hand, unless another was taken into hand meanwhile', () => {
  const entered = { type: 'entered', from: '3', next: '6', typed: true } as const;
  expect(padReducer({ ...PAD, goes: '0.10' }, entered)).toMatchObject({ station: '6', goes: null });
  expect(padReducer({ ...PAD, station: '12' }, entered).station).toBe('12');
  const pulled = { ...entered, typed: false };
  expect(padReducer({ ...PAD, goes: '0.10' }, pulled)).toMatchObject({ station: '6', goes: '0.10' });
  expect(padReducer(PAD, { ...entered, next: undefined }).station).toBe('3');
});

test('a number typed anew goes back to its station, and a leaf half entered is let go', () => {
  const half = padReducer(PAD, { type: 'goes', leaf: '0.10' });
  expect(half.goes).toBe('0.10');
  expect(padReducer(half, { type: 'anew', station: '12' })).toMatchObject({ station: '12', goes: null });
});

test('gauges and stations go round', () => {
  expect(turned(['a', 'b', 'c'], 2, 1)).toBe('a');
  expect(turned(['a', 'b', 'c'], 0, -1)).toBe('c');
  expect(turned([], 0, 1)).toBeUndefined();
});
