import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { expect, test } from 'vitest';
import { FormSelect, FormText } from './form';
import { UnitProvider, useUnit } from './unit';
import { useDraftForm } from './useDraftForm';

const MM = { size: '25.4', hours: '14380', kind: '' };
const INCH = { size: '1', hours: '14380', kind: '' };
const KINDS = [
  ['', 'choose'],
  ['oil', 'an oil'],
] as const;

/** A form that begins as the server tells it in the unit that is on. */
function Form() {
  const { unit, toggle } = useUnit();
  const form = useDraftForm(unit === 'mm' ? MM : INCH, (name) => (name === 'size' ? undefined : ''));
  const [sent, setSent] = useState('');
  return (
    <>
      <FormText form={form} name="size" label="Size" />
      <FormText form={form} name="hours" label="Hours" />
      <FormSelect form={form} name="kind" label="Kind" options={KINDS} />
      <button onClick={toggle}>unit</button>
      <button onClick={() => setSent(JSON.stringify([form.changed(), form.texts().size]))}>send</button>
      <output>{sent}</output>
    </>
  );
}

const field = (name: string) => screen.getByLabelText<HTMLInputElement>(name);

function show() {
  localStorage.clear();
  render(
    <UnitProvider>
      <Form />
    </UnitProvider>,
  );
  const send = async () => {
    await userEvent.click(screen.getByText('send'));
    return JSON.parse(screen.getByRole('status').textContent ?? '') as [Record<string, string>, string];
  };
  return { send, toggle: () => userEvent.click(screen.getByText('unit')) };
}

test('what was not touched follows the server, and is not sent', async () => {
  const { send, toggle } = show();
  expect(await send()).toEqual([{}, '25.4']);
  await toggle();
  expect(field('Size').value).toBe('1');
  expect(await send()).toEqual([{}, '1']);
});

test('what was typed keeps its meaning when the unit is switched, and alone is sent', async () => {
  const { send, toggle } = show();
  await userEvent.clear(field('Size'));
  await userEvent.type(field('Size'), '30');
  await userEvent.selectOptions(field('Kind'), 'oil');
  await toggle();
  expect(field('Size').value).toBe('30 mm');
  expect(field('Hours').value).toBe('14380');
  expect(await send()).toEqual([{ size: '30 mm', kind: 'oil' }, '30 mm']);
  await toggle();
  expect(field('Size').value).toBe('30');
});
