import { fireEvent, render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import { UnitProvider, useDraft, useDrafts, useUnit } from './unit';
import { useSign, WorksContext } from './works';
import { TEST_WORKS } from '../test-bench';

function Line({ kind = 'length' }: { kind?: string }) {
  const { unit, toggle } = useUnit();
  const [text, setText] = useDraft('', useSign(kind));
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
    <WorksContext.Provider value={TEST_WORKS}>
      <UnitProvider>
        <Line />
      </UnitProvider>
    </WorksContext.Provider>,
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
  expect(typeThenSwitch("1'750,5")).toBe("1'750,5 mm");
});

test('a list keeps it too, each thickness before its count', () => {
  expect(typeThenSwitch('0.03 0.05 0,10')).toBe('0.03 0.05 0,10 mm');
  expect(typeThenSwitch('0.05 x 6; 0.10 x 4')).toBe('0.05 mm x 6; 0.10 mm x 4');
  expect(typeThenSwitch('0.05 in x 6; 0.10')).toBe('0.05 in x 6; 0.10');
});

test('a fraction in one character is a bare number, too', () => {
  expect(typeThenSwitch('1½')).toBe('1½ mm');
  expect(typeThenSwitch('⅝')).toBe('⅝ mm');
  expect(typeThenSwitch('1-1/2')).toBe('1-1/2 mm');
  expect(typeThenSwitch('1⁄4')).toBe('1⁄4 mm');
});

test('what carries a unit, or nothing, stays as typed', () => {
  expect(typeThenSwitch('1.4995 in')).toBe('1.4995 in');
  expect(typeThenSwitch("5''")).toBe("5''");
  expect(typeThenSwitch('1½ in')).toBe('1½ in');
  expect(typeThenSwitch('')).toBe('');
});

test('a pressure keeps its bar, and is bare again when the unit is switched back', () => {
  localStorage.clear();
  render(
    <WorksContext.Provider value={TEST_WORKS}>
      <UnitProvider>
        <Line kind="pressure" />
      </UnitProvider>
    </WorksContext.Provider>,
  );
  const shown = () => screen.getByLabelText<HTMLInputElement>('typed').value;
  fireEvent.change(screen.getByLabelText('typed'), { target: { value: '5' } });
  fireEvent.click(screen.getByRole('button'));
  expect(shown()).toBe('5 bar');
  fireEvent.click(screen.getByRole('button'));
  expect(shown()).toBe('5');
  fireEvent.click(screen.getByRole('button'));
  fireEvent.change(screen.getByLabelText('typed'), { target: { value: '70' } });
  fireEvent.click(screen.getByRole('button'));
  expect(shown()).toBe('70 psi');
});

function Form() {
  const { toggle } = useUnit();
  const [texts, put] = useDrafts({ meter: '14 380' }, (name) => (name === 'meter' ? '' : undefined));
  return (
    <>
      <input aria-label="gap" value={texts.gap ?? ''} onChange={(e) => put('gap', e.target.value)} />
      <output>{texts.meter}</output>
      <button onClick={toggle}>switch</button>
    </>
  );
}

test('of several texts each keeps its own unit, and a number without one stays bare', () => {
  localStorage.clear();
  render(
    <UnitProvider>
      <Form />
    </UnitProvider>,
  );
  fireEvent.change(screen.getByLabelText('gap'), { target: { value: '0.13' } });
  fireEvent.click(screen.getByRole('button'));
  expect(screen.getByLabelText('gap')).toHaveValue('0.13 mm');
  expect(screen.getByRole('status')).toHaveTextContent('14 380');
});

test('a works that reads thousandths has them beside millimetres, and a browser keeps what was chosen in it', () => {
  localStorage.clear();
  function Begun() {
    const { unit, begin, toggle } = useUnit();
    return (
      <>
        <button onClick={() => begin('thou')}>begin</button>
        <button onClick={toggle}>{unit}</button>
      </>
    );
  }
  const { unmount } = render(<Begun />, { wrapper: UnitProvider });
  fireEvent.click(screen.getByRole('button', { name: 'begin' }));
  fireEvent.click(screen.getByRole('button', { name: 'thou' }));
  expect(screen.getByRole('button', { name: 'mm' })).toBeVisible();
  unmount();
  render(<Begun />, { wrapper: UnitProvider });
  fireEvent.click(screen.getByRole('button', { name: 'begin' }));
  fireEvent.click(screen.getByRole('button', { name: 'mm' }));
  expect(screen.getByRole('button', { name: 'thou' })).toBeVisible();
});
