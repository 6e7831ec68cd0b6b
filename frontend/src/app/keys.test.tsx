import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, expect, test, vi } from 'vitest';
import { KeyProvider, useKeys } from './keys';

const working = vi.fn();
const next = vi.fn();

function Screen() {
  useKeys([
    { key: 'w', label: 'working', run: working },
    { key: 'ArrowDown', show: '↓', label: 'next gap', run: next },
  ]);
  return (
    <>
      <input type="text" data-pad="1" aria-label="pad" />
      <input type="text" aria-label="reason" />
      <button>other</button>
    </>
  );
}

beforeEach(() => {
  working.mockClear();
  next.mockClear();
  render(
    <KeyProvider>
      <Screen />
    </KeyProvider>,
  );
});

test('a letter does its work while the pad is empty, and is typed once a number has begun', async () => {
  const pad = screen.getByLabelText('pad');
  await userEvent.type(pad, 'w');
  expect(working).toHaveBeenCalledOnce();
  expect(pad).toHaveValue('');
  await userEvent.type(pad, '5 w');
  expect(working).toHaveBeenCalledOnce();
  expect(pad).toHaveValue('5 w');
});

test('arrows move between gaps even while a number is typed', async () => {
  await userEvent.type(screen.getByLabelText('pad'), '38.1{ArrowDown}');
  expect(next).toHaveBeenCalledOnce();
});

test('words being typed elsewhere are left alone', async () => {
  await userEvent.type(screen.getByLabelText('reason'), 'worn');
  expect(working).not.toHaveBeenCalled();
  expect(screen.getByLabelText('reason')).toHaveValue('worn');
});

test('a key that is held does its work once; Enter, too', () => {
  fireEvent.keyDown(window, { key: 'w' });
  for (let i = 0; i < 5; i++) fireEvent.keyDown(window, { key: 'w', repeat: true });
  expect(working).toHaveBeenCalledOnce();
  const pad = screen.getByLabelText('pad');
  expect(fireEvent.keyDown(pad, { key: 'Enter' })).toBe(true);
  expect(fireEvent.keyDown(pad, { key: 'Enter', repeat: true })).toBe(false);
  fireEvent.keyDown(pad, { key: 'ArrowDown' });
  fireEvent.keyDown(pad, { key: 'ArrowDown', repeat: true });
  expect(next).toHaveBeenCalledTimes(2);
});

test("the browser's own keys are not taken", () => {
  for (const held of [{ ctrlKey: true }, { altKey: true }, { metaKey: true }]) {
    expect(fireEvent.keyDown(window, { key: 'w', ...held })).toBe(true);
  }
  expect(working).not.toHaveBeenCalled();
});

test('a digit typed anywhere lands in the pad', async () => {
  screen.getByText('other').focus();
  await userEvent.keyboard('38.17');
  expect(screen.getByLabelText('pad')).toHaveValue('38.17');
});

test('the strip shows the keys and can be pressed; ? lists them all', async () => {
  await userEvent.click(screen.getByRole('button', { name: /↓ next gap/ }));
  expect(next).toHaveBeenCalledOnce();
  await userEvent.keyboard('?');
  expect(await screen.findByRole('dialog')).toHaveTextContent('working');
});
