import { render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import type { Gaskets } from '../api/client';
import { GapBar, WearBar } from './GapBar';
import { GasketStack } from './GasketStack';
import { TableMap } from './TableMap';
import { TriesPlot } from './TriesPlot';
import { VerdictMark } from './VerdictMark';
import { aSetting, aTry } from '../test-settings';

const WINDOW = { low: { mm: 0.13, text: '0.13' }, high: { mm: 0.18, text: '0.18' }, targetMm: 0.15 };

function number(element: Element | null, name: string): number {
  return Number(element?.getAttribute(name));
}

test('the gap bar is to scale: value, window and soft edge keep their proportions', () => {
  const { container } = render(
    <GapBar {...WINDOW} measured={{ mm: 0.21, expandedMm: 0.01, text: '0.21' }} />,
  );
  const window_ = container.querySelector('.window');
  const perMm = number(window_, 'width') / 0.05;
  const zero = number(window_, 'x') - 0.13 * perMm;
  expect(number(container.querySelector('.value'), 'x1')).toBeCloseTo(zero + 0.21 * perMm);
  expect(number(container.querySelector('.doubt'), 'width')).toBeCloseTo(0.02 * perMm);
  expect(zero).toBeCloseTo(number(container.querySelector('.slot'), 'x'));
  expect(screen.getByRole('img')).toHaveAccessibleName('Measured 0.21, window 0.13 to 0.18');
});

test('a gap at or below zero is drawn at the head, not outside the picture', () => {
  const { container } = render(
    <GapBar {...WINDOW} measured={{ mm: -0.4, expandedMm: 0.01, text: '-0.40' }} />,
  );
  expect(number(container.querySelector('.value'), 'x1')).toBe(number(container.querySelector('.slot'), 'x'));
});

test('wear goes to the right whichever way the part wears', () => {
  const at = (newMm: number[], limitMm: number, valueMm: number) => {
    const { container } = render(
      <WearBar newMm={newMm} limitMm={limitMm} limitText="limit" valueMm={valueMm} expandedMm={0} />,
    );
    return [
      number(container.querySelector('.window'), 'x'),
      number(container.querySelector('.value'), 'x1'),
      number(container.querySelector('.metal'), 'x'),
    ];
  };
  const bore = at([10.0, 10.0], 11.0, 10.5);
  const shaft = at([10.0, 10.0], 9.0, 9.5);
  expect(bore).toEqual(shaft);
  const [fresh = 0, value = 0, limit = 0] = bore;
  expect(value - fresh).toBeCloseTo(limit - value);
  const [, past = 0] = at([10.0, 10.0], 11.0, 99);
  expect(past).toBeLessThan(512);
});

const GASKETS: Gaskets = {
  kind: 'gaskets',
  now: [{ um: 250, text: '0.25', count: 1 }],
  next: [
    { um: 100, text: '0.10', count: 2 },
    { um: 50, text: '0.05', count: 1 },
  ],
  out: [{ um: 250, text: '0.25', count: 1 }],
  into: [
    { um: 100, text: '0.10', count: 2 },
    { um: 50, text: '0.05', count: 1 },
  ],
  box: [],
  possible: true,
};

test('stacks are drawn to one scale, and what moves is marked and said', () => {
  const { container } = render(<GasketStack gaskets={GASKETS} unit="mm" place="under the head" />);
  const height = (e: Element) => number(e, 'height');
  const [out, ...into] = [...container.querySelectorAll('.gasket')];
  if (!out) throw new Error('no gasket drawn');
  expect(into.map(height).reduce((a, b) => a + b)).toBeCloseTo(height(out));
  expect(height(into[0] as Element) / height(into[2] as Element)).toBeCloseTo(2);
  expect(out).toHaveClass('moves-out');
  expect(container.textContent).toContain('0.25 mm, comes out');
  expect(container.textContent).not.toContain('0.05 in');
  expect(screen.getByRole('img')).toHaveAccessibleName(/out 1 of 0.25 mm; in 2 of 0.10 mm, 1 of 0.05 mm/);
});

test('the gaskets lie on one another without a gap or an overlap', () => {
  const { container } = render(
    <GasketStack gaskets={{ ...GASKETS, now: [], out: [] }} unit="mm" place="under the head" />,
  );
  const [a, b] = [...container.querySelectorAll('.gasket')];
  expect(number(a ?? null, 'y')).toBeCloseTo(number(b ?? null, 'y') + number(b ?? null, 'height'));
});

test('verdicts differ by shape, not by colour alone', () => {
  const shapes = ['Keep', 'Watch', 'Change', 'Measure again', null].map((call) => {
    const { container } = render(<VerdictMark verdict={call} />);
    return container.innerHTML.replace(/class="[^"]*"/g, '');
  });
  expect(new Set(shapes).size).toBe(5);
});

test('tries are drawn in order on their way into the window, the last one solid, its doubt as long as it is', () => {
  const one = (number: number, gap_mm: number) =>
    aTry(number, { gap_mm, gap: gap_mm.toFixed(2), expanded_mm: 0.01 });
  const setting = aSetting({ tries: [one(1, 0.3), one(2, 0.2), one(3, 0.16)] });
  const { container } = render(<TriesPlot setting={setting} unit="mm" />);
  const dots = [...container.querySelectorAll('circle')];
  const [a = 0, b = 0, c = 0] = dots.map((d) => Number(d.getAttribute('cy')));
  expect(a < b && b < c).toBe(true); // smaller gaps lie lower
  expect((b - a) / (c - b)).toBeCloseTo(0.1 / 0.04, 3); // to one scale
  expect(dots.map((d) => d.classList.contains('hollow'))).toEqual([true, true, false]);
  const window = container.querySelector('.window');
  const top = Number(window?.getAttribute('y'));
  const bottom = top + Number(window?.getAttribute('height'));
  expect(c > top && c < bottom && b < top).toBe(true);
  expect(screen.getByRole('img')).toHaveAccessibleName(
    'Window 0.13 to 0.18 mm: try 1 0.30, try 2 0.20, try 3 0.16.',
  );
});

test('a table is drawn as a map: logarithmic across, open ends without an edge, the row in use on top', () => {
  const region = (setting: string, mm2_s: number[], more: object) => ({
    setting,
    clearance: '0.1 mm',
    mm2_s,
    c: [0, 100],
    open_mm2_s: [false, false],
    open_c: [false, false],
    matches: false,
    chosen: false,
    ...more,
  });
  const map = {
    mm2_s: [1, 10000],
    c: [0, 100],
    way: [],
    duty: [100, 50],
    regions: [
      region('used', [1, 100], { matches: true, chosen: true, open_mm2_s: [true, false] }),
      region('other', [100, 10000], { open_mm2_s: [false, true] }),
    ],
    mm2_s_ticks: [1, 10, 100].map((value) => ({ value, text: String(value) })),
    c_ticks: [{ value: 50, text: '50 °C' }],
  };
  const { container } = render(<TableMap map={map} />);
  const areas = [...container.querySelectorAll('.region')].map((g) => g.getAttribute('class'));
  expect(areas).toEqual(['region is-misses', 'region is-chosen']);
  const [other, used] = [...container.querySelectorAll('.region-area')];
  expect(number(other ?? null, 'width')).toBeCloseTo(number(used ?? null, 'width'), 6); // two decades each
  const point = container.querySelector('.duty-point');
  expect(number(point, 'cx')).toBeCloseTo(number(other ?? null, 'x'), 6);
  const upright = (path: Element | undefined) => (path?.getAttribute('d')?.match(/V/g) ?? []).length;
  expect([...container.querySelectorAll('.region-edge')].map(upright)).toEqual([1, 1]);
  expect(screen.getByRole('img')).toHaveAccessibleName(/works at 100 mm²\/s and 50 °C.*used 0.1 mm, used/);
});
