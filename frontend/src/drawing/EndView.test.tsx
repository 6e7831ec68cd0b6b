import { render } from '@testing-library/react';
import { expect, test } from 'vitest';
import type { Housing } from '../api/client';
import { EndView } from './EndView';

const HOUSING: Housing = {
  kind: 'housing',
  diameter: '100 mm',
  lead: '2 mm',
  hand: 'right',
  per_step: '',
  school: 'back off from bind',
  zero_found: true,
  lash: '0',
  lash_seen: null,
  prescribed: 'close to first drag',
  lash_does: '',
  position_deg: 30,
  target_deg: 90,
  arc: '1',
  degrees_per_mm: 1800,
  check: null,
  check_agrees: true,
  check_working: null,
};

/** Degrees from straight up, counterclockwise positive, of a line drawn from the middle outwards. */
function turned(container: HTMLElement, selector: string): number {
  const line = container.querySelector(selector);
  if (!line) throw new Error(`no ${selector}`);
  const at = (name: string) => Number(line.getAttribute(name));
  const [dx, dy] = [at('x2') - at('x1'), at('y2') - at('y1')];
  return (Math.atan2(-dx, -dy) * 180) / Math.PI;
}

test('a right-hand thread opens to the left: marks stand counterclockwise from zero by their true angle', () => {
  const { container } = render(<EndView housing={HOUSING} unit="mm" turning />);
  expect(turned(container, '.zero-mark')).toBeCloseTo(0);
  expect(turned(container, '.now-mark')).toBeCloseTo(30);
  expect(turned(container, '.goal-mark')).toBeCloseTo(90);
  expect(turned(container, '.tick.long')).toBeCloseTo(90);
  expect(container.textContent).toContain('counterclockwise opens');
});

test('a left-hand thread is the mirror of it', () => {
  const { container } = render(<EndView housing={{ ...HOUSING, hand: 'left' }} unit="mm" turning />);
  expect(turned(container, '.now-mark')).toBeCloseTo(-30);
  expect(turned(container, '.goal-mark')).toBeCloseTo(-90);
  expect(container.textContent).toContain('↻ clockwise opens');
});

test('the arrow ends at the goal and bends the way the housing turns', () => {
  const sweep = (from: number, to: number, hand: string) => {
    const housing = { ...HOUSING, position_deg: from, target_deg: to, hand };
    const { container } = render(<EndView housing={housing} unit="mm" turning />);
    return /A[\d.]+ [\d.]+ 0 (\d) (\d)/
      .exec(container.querySelector('.arrow path')?.getAttribute('d') ?? '')
      ?.slice(1);
  };
  // the second flag of an SVG arc: 0 draws it counterclockwise, 1 clockwise
  expect(sweep(0, 60, 'right')).toEqual(['0', '0']);
  expect(sweep(60, 20, 'right')).toEqual(['0', '1']);
  expect(sweep(0, 60, 'left')).toEqual(['0', '1']);
  expect(sweep(0, 200, 'right')).toEqual(['1', '0']);
});

test('the scale has round numbers of the unit in use, a little past the furthest mark', () => {
  const texts = (unit: string) => {
    const { container } = render(
      <EndView housing={{ ...HOUSING, degrees_per_mm: 180 }} unit={unit} turning />,
    );
    return [...container.querySelectorAll('g > text.note')]
      .map((t) => t.textContent)
      .filter((t) => /^[\d.]+$/.test(t));
  };
  // 116 degrees at 180 degrees a millimetre: to 0.64 mm, 0.025 in
  expect(texts('mm')).toEqual([
    '0.05',
    '0.10',
    '0.15',
    '0.20',
    '0.25',
    '0.30',
    '0.35',
    '0.40',
    '0.45',
    '0.50',
    '0.55',
    '0.60',
  ]);
  expect(texts('in').at(0)).toBe('0.001');
  expect(texts('in').at(-1)).toBe('0.025');
});

test('nothing to turn, no arrow; the picture is said in words', () => {
  const { container, getByRole } = render(<EndView housing={HOUSING} unit="mm" turning={false} />);
  expect(container.querySelector('.arrow')).toBeNull();
  expect(getByRole('img')).toHaveAccessibleName("The housing's line stands 30.0 degrees open of zero.");
});
