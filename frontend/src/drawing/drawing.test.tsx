import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import type { Drawing, Feature, Reading } from '../api/client';
import { PumpDrawing, PumpOrRoom } from './PumpDrawing';
import { linesOf, type DrawnFeature } from './stateOf';
import { StationPlan } from './StationPlan';
import { aFeature, aJudged, aResult } from '../test-builders';

function place(key: string): Drawing['numbers'][number] {
  return {
    key,
    number: 2,
    name: 'Idler, bore',
    x: 30,
    y: 40,
    right: false,
    text_x: 7,
    port: [47, 40],
    spot: [90, 20],
    stations: [
      { key: 'front/12–6', x: 91, y: 10 },
      { key: 'back/12–6', x: 99, y: 10 },
    ],
    faces: ['pin', 'idler'],
    mate: '',
    set_as: '',
  };
}

const CALLS = ['open', null, 'Keep', 'Watch', 'Change', 'Measure again'];
const DRAWING: Drawing = {
  width: 300,
  height: 200,
  named: true,
  ring_px: 17,
  words_px: 100,
  row_px: 44,
  views: [
    {
      name: 'cut along the shaft',
      x: 60,
      y: 5,
      scale: 0.5,
      marks: [
        { style: 'hatched', path: 'M0 0 h10 v10 Z', of: '' },
        { style: 'steel light', path: 'M20 0 h10 v10 Z', of: 'pin' },
      ],
    },
  ],
  numbers: [...CALLS.map((call) => place(`f-${call}`)), place('a'), place('b')],
};

function feature(verdict: string | null, more: Partial<Feature> = {}): Feature {
  const known = verdict !== null && verdict !== 'open';
  return aFeature({
    key: `f-${verdict}`,
    number: 2,
    name: 'Idler, bore',
    kind: 'internal',
    found: verdict === 'open' ? null : aResult({ text: '34.14' }),
    judged: known ? aJudged(verdict) : null,
    done: verdict !== 'open',
    ...more,
  });
}

test('the words beside a number are those there is room for, by name or without', () => {
  const lines = (of: DrawnFeature) =>
    [true, false].map((named) => linesOf(of, 'Idler, bore', named).join('|'));
  expect(lines(feature('Measure again'))).toEqual(['Idler, bore|34.14 · again', '34.14|again']);
  const hours = '12\u00a0340\u00a0h';
  const left = { found: { text: `${hours} left` }, open: 'not known' };
  expect(lines({ ...feature('Watch'), ...left })).toEqual([`Idler, bore|${hours} left`, `${hours}|left`]);
  expect(lines({ ...feature('open'), open: 'not known' })[1]).toBe('not|known');
  expect(lines(feature('Keep'))).toEqual(['Idler, bore|34.14', '34.14|']);
  expect(lines(feature('open'))).toEqual(['Idler, bore|to measure', 'to do|']);
  const first = feature('open', { suspect: 1, stations: STATIONS });
  expect(lines(first)).toEqual(['Idler, bore|measure first', 'first|']);
  expect(lines(feature('open', { wanted: false }))).toEqual(['Idler, bore|no size given', '|']);
  const seen = { damages: ['a', 'b'], words: 'polished, scored', note: '', by: 'Ines', at: '' };
  const check = (verdict: string) => feature(verdict, { kind: 'check', found: null, look: seen });
  expect(lines(check('Keep'))).toEqual(['Idler, bore|2 marks', '2 marks|']);
  expect(lines(check('Change'))).toEqual(['Idler, bore|Change', '|Change']);
});

test('the state of each gap is in its shape, in its words and in its name', () => {
  const { container } = render(
    <PumpDrawing drawing={DRAWING} features={CALLS.map((c) => feature(c))} selected="" onSelect={vi.fn()} />,
  );
  const balloons = [...container.querySelectorAll('.balloon')];
  const shapes = balloons.map((b) => {
    const ring = b.querySelector('.ring');
    return `${ring?.getAttribute('stroke-dasharray') ?? ''}|${b.querySelector('.bar') !== null}`;
  });
  // measured without a limit and Keep are both a closed ring; every other state has a shape of its own
  expect(new Set(shapes).size).toBe(5);
  expect(shapes[1]).toBe(shapes[2]);
  expect(balloons.map((b) => b.getAttribute('aria-label'))).toEqual([
    '2 Idler, bore: to measure',
    '2 Idler, bore: 34.14',
    '2 Idler, bore: 34.14, Keep',
    '2 Idler, bore: 34.14, Watch',
    '2 Idler, bore: 34.14, Change',
    '2 Idler, bore: 34.14, Measure again',
  ]);
});

test('a gap is chosen by a press or from the keyboard, and what was left counts over what was found', async () => {
  const choose = vi.fn();
  const left = aResult({ text: '34.04' });
  const judged_left = aJudged('Keep');
  render(
    <PumpDrawing
      drawing={DRAWING}
      features={[feature('Change', { left, judged_left })]}
      selected=""
      onSelect={choose}
    />,
  );
  const balloon = screen.getByRole('button', { name: '2 Idler, bore: 34.04, Keep' });
  balloon.focus();
  await userEvent.keyboard('{Enter}');
  await userEvent.keyboard(' ');
  expect(choose.mock.calls).toEqual([['f-Change'], ['f-Change']]);
});

test('until the drawing is there its room is kept, and where it cannot be had a word says so', () => {
  const props = { drawing: undefined, features: [], selected: '', onSelect: vi.fn() };
  const { container, rerender } = render(<PumpOrRoom {...props} lost={false} />);
  expect(container.querySelector('.drawing-room')).not.toBeNull();
  rerender(<PumpOrRoom {...props} lost />);
  expect(screen.getByText(/could not be had/)).toBeVisible();
});

test('the leader runs from the number to the place on the part', () => {
  const { container } = render(
    <PumpDrawing drawing={DRAWING} features={[feature('Keep')]} selected="f-Keep" onSelect={vi.fn()} />,
  );
  const leader = container.querySelector('.leader');
  expect(['x1', 'y1', 'x2', 'y2'].map((n) => Number(leader?.getAttribute(n)))).toEqual([90, 20, 47, 40]);
  expect(screen.getByRole('button')).toHaveAttribute('aria-pressed', 'true');
});

test('the part in hand shows where it is measured, filled where it was: not for what was struck out or measured as left', () => {
  const left = { ...reading('back/12–6', '34.1'), phase: 'left' };
  const struck = reading('back/12–6', '34.2', 'slipped');
  const of = feature('Keep', { readings: [reading('front/12–6', '34.141'), struck, left] });
  const { container, rerender } = render(
    <PumpDrawing drawing={DRAWING} features={[of]} selected="f-Keep" onSelect={vi.fn()} />,
  );
  const marks = [...container.querySelectorAll('.station-mark')].map((e) => e.classList.contains('taken'));
  expect(marks).toEqual([true, false]);
  rerender(<PumpDrawing drawing={DRAWING} features={[of]} selected="" onSelect={vi.fn()} />);
  expect(container.querySelector('.station-mark')).toBeNull();
});

const STATIONS = [
  { key: 'front/12–6', plane: 'front', direction: '12–6', label: 'front, 12–6' },
  { key: 'front/3–9', plane: 'front', direction: '3–9', label: 'front, 3–9' },
  { key: 'back/12–6', plane: 'back', direction: '12–6', label: 'back, 12–6' },
];

function reading(station: string, text: string, struck = ''): Reading {
  return { id: `${station}${text}`, phase: 'found', station, text, struck_reason: struck } as Reading;
}

test('each station shows its last reading that counts and how often it was taken', async () => {
  const choose = vi.fn();
  const readings = [
    reading('front/12–6', '34.141'),
    reading('front/12–6', '34.143'),
    reading('front/12–6', '39.999', 'slipped'),
    reading('back/12–6', '34.136'),
  ];
  render(
    <StationPlan
      feature={feature('open', { stations: STATIONS })}
      readings={readings}
      station="back/12–6"
      onStation={choose}
    />,
  );
  expect(screen.getByRole('button', { name: 'front, 12–6: 34.143' })).toHaveTextContent('34.143 ×2');
  expect(screen.getByRole('button', { name: 'front, 3–9: not measured' })).toHaveTextContent('—');
  expect(screen.getByRole('button', { name: 'back, 12–6: 34.136' })).toHaveAttribute('aria-pressed', 'true');
  await userEvent.click(screen.getByRole('button', { name: 'front, 3–9: not measured' }));
  expect(choose).toHaveBeenCalledWith('front/3–9');
});

test('the drawing is what the family declares: every outline, hatched ones with a pattern', () => {
  const { container } = render(
    <PumpDrawing drawing={DRAWING} features={[]} selected="" onSelect={vi.fn()} />,
  );
  expect(container.querySelector('svg')?.getAttribute('viewBox')).toBe('0 0 300 200');
  const [hatched, steel] = [...container.querySelectorAll('svg > g > path')];
  expect(container.querySelector('svg > g')?.getAttribute('transform')).toBe('translate(60 5) scale(0.5)');
  expect(hatched?.getAttribute('fill')).toMatch(/^url\(#/);
  expect(steel).toHaveClass('steel', 'light');
});

test('what was looked at says what was seen, and what to measure first says so', () => {
  const seen = { damages: [], words: 'sound', note: '', by: 'Ines', at: '' };
  const check = { kind: 'check', found: null, done: true, look: seen } as Partial<Feature>;
  const first = { suspect: 1, found: null, done: false, stations: STATIONS } as Partial<Feature>;
  render(
    <PumpDrawing
      drawing={DRAWING}
      features={[feature('Keep', { key: 'a', ...check }), feature('open', { key: 'b', ...first })]}
      selected=""
      onSelect={vi.fn()}
    />,
  );
  expect(screen.getByRole('button', { name: '2 Idler, bore: sound, Keep' })).toBeVisible();
  expect(screen.getByRole('button', { name: '2 Idler, bore: measure first, suspect' })).toBeVisible();
});

test('stations lie round the part at their clock positions, and many of them as a table', () => {
  const clock = (hours: string[]) =>
    hours.map((h) => ({ key: h, plane: '', direction: h, label: `${h} o'clock` }));
  const { container, rerender } = render(
    <StationPlan
      feature={feature('open', { stations: clock(['12', '3', '6', '9']) })}
      readings={[]}
      station=""
      onStation={vi.fn()}
    />,
  );
  const at = [...container.querySelectorAll<HTMLElement>('.station')].map((b) => [b.style.left, b.style.top]);
  expect(at).toEqual([
    ['50%', '15%'],
    ['83%', '50%'],
    ['50%', '85%'],
    ['17%', '50%'],
  ]);
  const many = Array.from({ length: 12 }, (_, i) => ({
    key: `${i}`,
    plane: ['front', 'middle', 'back'][i % 3] ?? '',
    direction: `vane ${Math.floor(i / 3)}`,
    label: `${i}`,
  }));
  rerender(
    <StationPlan
      feature={feature('open', { stations: many })}
      readings={[]}
      station=""
      onStation={vi.fn()}
    />,
  );
  expect(container.querySelector('.plane')).toBeNull();
  expect(container.querySelectorAll('.station-table .station')).toHaveLength(12);
});
