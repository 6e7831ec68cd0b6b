import { fireEvent, render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import { UnitProvider, useDraft, useUnit } from './unit';

function Line() {
  const { unit, toggle } = useUnit();
  const [text, setText] = useDraft();
  return (
    <>
      <input aria-label="typed" value={text} onChange={(e) => setText(e.target.value)} />
      <button onClick={toggle}>{unit}</button>
    </>
  );
}

function typeThenSwitch(text: string): string {
  localStorage.clear();
  const { unmount } = render(
    <UnitProvider>
      <Line />
    </UnitProvider>,
  );
  fireEvent.change(screen.getByLabelText('typed'), { target: { value: text } });
  fireEvent.click(screen.getByRole('button'));
  const shown = screen.getByLabelText<HTMLInputElement>('typed').value;
  unmount();
  return shown;
}

test('a bare number keeps the unit it was typed in when the unit is switched', () => {
  expect(typeThenSwitch('38.17')).toBe('38.17 mm');
  expect(typeThenSwitch('0,13')).toBe('0,13 mm');
});

test('what carries a unit, or nothing, stays as typed', () => {
  expect(typeThenSwitch('1.4995 in')).toBe('1.4995 in');
  expect(typeThenSwitch('')).toBe('');
});
