import { afterEach, expect, test } from 'vitest';
import { day, moment, writeDaysAs } from './time';

afterEach(() => writeDaysAs('day-month'));

test('a day alone has no time zone, and is written as the works writes it', () => {
  const written = ['day-month', 'month-day', 'iso', 'dotted'].map((form) => {
    writeDaysAs(form, 'Pacific/Auckland');
    return day('2026-11-05');
  });
  expect(written).toEqual(['5 Nov 2026', 'Nov 5, 2026', '2026-11-05', '05.11.2026']);
});

test('a moment is in the time zone of the works, whatever that of the device', () => {
  // an hour ahead of UTC until the last Sunday of October
  writeDaysAs('day-month', 'Europe/Lisbon');
  expect(moment('2026-10-24T23:30:00Z')).toBe('25 Oct, 00:30');
  expect(moment('2026-10-25T23:30:00Z')).toBe('25 Oct, 23:30');
  writeDaysAs('dotted', 'America/New_York');
  expect(moment('2026-10-25T03:30:00Z')).toBe('24.10.2026, 23:30');
  expect(day('2026-10-25T03:30:00Z')).toBe('24.10.2026');
});
