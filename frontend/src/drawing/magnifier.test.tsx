import { render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import type { Feature } from '../api/client';
import { aFeature, aResult } from '../test-builders';
import type { Window } from './magnified';
import { Magnifier } from './Magnifier';

const result = (value_mm: number, text: string) =>
  aResult({ value_mm, expanded_mm: 0.01, text, expanded_text: '0.01' });

function shown(feature: Partial<Feature>, faces: string[], mate?: Partial<Feature>, window?: Window) {
  const { container } = render(
    <Magnifier
      feature={aFeature(feature)}
      faces={faces}
      mate={mate && aFeature(mate)}
      window={window}
      width={700}
    />,
  );
  const of = (query: string, name: string) =>
    [...container.querySelectorAll(query)].map((e) => Number(e.getAttribute(name)));
  const spans = (query: string) => {
    const widths = of(query, 'width');
    return of(query, 'x').map((at, i) => [at, at + (widths[i] ?? NaN)] as const);
  };
  const limits = [...container.querySelectorAll('.limit-line')].map((e) => e.getAttribute('d') ?? '');
  const [first = [NaN, NaN], second = [NaN, NaN]] = spans('.metal');
  return {
    faces: spans('.metal').length,
    near: first[1],
    far: second[0],
    unknown: [...container.querySelectorAll('.metal')].map((e) => e.classList.contains('unknown')),
    value: of('.value', 'x1')[0] ?? NaN,
    window: spans('.window')[0] ?? [NaN, NaN],
    limit: Number.parseFloat(limits[0]?.slice(1) ?? ''),
    text: container.textContent,
  };
}

const GAP = {
  kind: 'gap',
  new_mm: [0.1, 0.2],
  upper_mm: 0.4,
  limit_text: 'at most 0.40',
  new_text: '0.10 to 0.20',
};

test('the faces of a gap stand as far apart as it measured, on the scale of its window and its limit', () => {
  const of = shown({ ...GAP, found: result(0.3, '0.30') }, ['head', 'rotor']);
  const share = (x: number) => (x - of.near) / (of.far - of.near);
  expect(of.value).toBeCloseTo(of.far);
  expect(of.window.map(share)).toEqual([expect.closeTo(0.1 / 0.3), expect.closeTo(0.2 / 0.3)]);
  expect(share(of.limit)).toBeCloseTo(0.4 / 0.3);
  expect(of.text).toMatch(/head.*rotor/);
  expect(of.unknown).toEqual([false, false]);
  expect(screen.getByRole('img')).toHaveAccessibleName(/0.30 ± 0.01, new 0.10 to 0.20, at most 0.40/);
});

test('what is not measured stands where it would be new, drawn thin, and nothing says a size', () => {
  const of = shown(GAP, ['head', 'rotor']);
  expect(of.value).toBeNaN();
  expect(of.unknown).toEqual([false, true]);
  expect(of.far).toBeCloseTo((of.window[0] + of.window[1]) / 2);
  expect(screen.getByRole('img')).toHaveAccessibleName(/not measured/);
});

test('it shows the size as found, as the pad beside it does, whatever was measured after', () => {
  const of = shown({ ...GAP, found: result(0.3, '0.30'), left: result(0.12, '0.12') }, ['head', 'rotor']);
  expect(of.text).toContain('0.30 ± 0.01');
  expect(of.text).not.toContain('0.12');
});

test('a gap that is set is held against its window, not against what is printed as new', () => {
  const window = { low_mm: 0.15, high_mm: 0.2, low: '0.15', high: '0.20' };
  const of = shown({ ...GAP, found: result(0.24, '0.24') }, ['head', 'rotor'], undefined, window);
  const share = (x: number) => (x - of.near) / (of.far - of.near);
  expect(of.window.map(share)).toEqual([expect.closeTo(0.15 / 0.24), expect.closeTo(0.2 / 0.24)]);
  expect(of.text).toContain('window 0.15 to 0.20');
  expect(of.text).not.toContain('new');
});

test('a bore has its own face on the right and its pin on the left; a pin the other way round', () => {
  const bore = { kind: 'internal', new_mm: [30.02, 30.04], upper_mm: 30.15, found: result(30.1, '30.10') };
  const pin = { kind: 'external', new_mm: [29.98, 30.0], lower_mm: 29.9, found: result(29.95, '29.95') };
  const of = shown(bore, ['Idler pin', 'Idler'], pin);
  expect(of.far).toBeCloseTo(of.value);
  expect(of.near).toBeLessThan(of.window[0]);
  const other = shown(pin, ['Idler pin', 'Idler'], bore);
  expect(other.near).toBeCloseTo(other.value);
  expect(other.far).toBeGreaterThan(other.window[1]);
  expect(other.limit).toBeLessThan(other.value);
});

test('a size alone has one face; without any size of the sheet there is nothing to magnify', () => {
  const tooth = { kind: 'external', new_mm: [58.9, 59.0], lower_mm: 58.8 };
  expect(shown({ ...tooth, found: result(58.85, '58.85') }, ['Rotor', '']).faces).toBe(1);
  expect(shown({ kind: 'external' }, ['Rotor', '']).text).toContain('gives no size');
});
