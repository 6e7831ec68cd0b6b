import { expect, test } from 'vitest';
import { monthTicks } from './monthTicks';

const day = (text: string) => Date.parse(text) / 86_400_000;
const texts = (from: string, to: string) => monthTicks(day(from), day(to)).map((tick) => tick.text);

test('ticks of the calendar are firsts of months inside the days, or the two days', () => {
  const ticks = monthTicks(day('2025-11-15'), day('2026-04-20'));
  expect(ticks.map((tick) => tick.at)).toEqual(
    ['2025-12-01', '2026-01-01', '2026-02-01', '2026-03-01', '2026-04-01'].map(day),
  );
  expect(ticks[1]?.text).toBe('Jan 2026');
  expect(texts('2019-05-02', '2026-08-01')).toEqual(
    [2020, 2021, 2022, 2023, 2024, 2025, 2026].map((year) => `Jan ${year}`),
  );
  expect(texts('2026-05-02', '2026-05-20')).toEqual(['2 May 2026', '20 May 2026']);
  expect(monthTicks(Infinity, NaN)).toEqual([]);
  expect(texts('1900-01-02', '2999-01-01').length).toBeLessThanOrEqual(8);
});
