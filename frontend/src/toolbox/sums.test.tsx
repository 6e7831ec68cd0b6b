import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { refusal, showOnBench, stubServer } from '../test-bench';
import { useUnit } from '../app/unit';
import { GunForm } from './GunForm';
import { Sums } from './Sums';

const ASK = { unit: 'mm', usual: '', optional: false, long: false, choices: [] };
const SUMS = [
  {
    key: 'packing',
    name: 'Packing',
    asks: [
      { ...ASK, key: 'shaft', name: 'shaft' },
      {
        ...ASK,
        key: 'joints',
        name: 'joints',
        unit: '',
        usual: 'quarter',
        choices: [{ key: 'quarter', name: 'every 90' }],
      },
      { ...ASK, key: 'gap', name: 'gap', optional: true },
    ],
  },
];
SUMS.push({ key: 'leaves', name: 'Leaves', asks: [{ ...ASK, key: 'set', name: 'set', long: true }] });
const server = stubServer(() => Response.json(SUMS));

test('a sum is asked for with what is usual filled in, its lines shown, and nothing sent before', async () => {
  showOnBench(<Sums />);
  await userEvent.type(await screen.findByLabelText('Shaft (mm)'), '50');
  expect(screen.getByLabelText('Joints')).toHaveValue('quarter');
  expect(screen.getByLabelText('Gap (mm), if known')).toBeInTheDocument();
  expect(server.sent).toHaveLength(1); // the register alone
  server.answer = () =>
    Response.json([{ name: 'Cut each ring', text: '188.50 mm', status: 'good', working: null }]);
  await userEvent.click(screen.getByRole('button', { name: 'Calculate' }));
  expect(await screen.findByText('188.50 mm')).toBeInTheDocument();
  expect(server.sent.at(-1)?.body).toMatchObject({ given: { shaft: '50', joints: 'quarter', gap: '' } });
});

test('what is answered or refused is brought into sight', async () => {
  const shown = vi.spyOn(Element.prototype, 'scrollIntoView');
  server.answer = () =>
    server.sent.at(-1)?.url.includes('/sums/packing')
      ? refusal({ field: 'shaft', problem: 'nothing was entered.' })
      : Response.json(SUMS);
  showOnBench(<Sums />);
  await userEvent.click(await screen.findByRole('button', { name: 'Calculate' }));
  expect(shown.mock.contexts).toEqual([await screen.findByRole('alert')]);
  server.answer = () => Response.json([{ name: 'Cut', text: '188.50 mm', status: 'good', working: null }]);
  await userEvent.type(screen.getByLabelText('Shaft (mm)'), '50');
  await userEvent.click(screen.getByRole('button', { name: 'Calculate' }));
  expect(await screen.findByText('188.50 mm')).toBeInTheDocument();
  expect(shown).toHaveBeenCalledTimes(2);
});

function Switch() {
  const { toggle } = useUnit();
  return <button onClick={toggle}>switch</button>;
}

test('what was typed and calculated keeps its meaning when the unit is switched', async () => {
  const inches = SUMS.map((s) => ({ ...s, asks: s.asks.map((a) => ({ ...a, unit: a.unit && 'in' })) }));
  server.answer = () => {
    const url = server.sent.at(-1)?.url ?? '';
    if (url.includes('/sums/packing')) return Response.json([]);
    return Response.json(url.includes('unit=in') ? inches : SUMS);
  };
  showOnBench(
    <>
      <Sums />
      <Switch />
    </>,
  );
  await userEvent.type(await screen.findByLabelText('Shaft (mm)'), '50');
  await userEvent.click(screen.getByRole('button', { name: 'Calculate' }));
  await userEvent.click(screen.getByRole('button', { name: 'switch' }));
  expect(await screen.findByLabelText('Shaft (in)')).toHaveValue('50 mm');
  const calculated = () => server.sent.filter((s) => s.url.includes('/sums/packing'));
  await waitFor(() => expect(calculated()).toHaveLength(2));
  expect(calculated().map((s) => (s.body.given as Record<string, string>).shaft)).toEqual(['50', '50 mm']);
});

test('what cannot be names the field and keeps what was typed', async () => {
  showOnBench(<Sums />);
  await userEvent.type(await screen.findByLabelText('Shaft (mm)'), 'thick');
  server.answer = () => refusal({ field: 'shaft', problem: '“thick” is not a length.' });
  await userEvent.click(screen.getByRole('button', { name: 'Calculate' }));
  expect(await screen.findByRole('alert')).toHaveTextContent('Shaft: “thick” is not a length.');
  expect(screen.getByLabelText('Shaft (mm)')).toHaveValue('thick');
});

test('a gun is weighed under the name written on it', async () => {
  const saved = vi.fn();
  server.answer = () => Response.json([]);
  showOnBench(<GunForm onSaved={saved} />);
  await userEvent.type(screen.getByLabelText('Written on the gun'), ' G-1 ');
  await userEvent.type(screen.getByLabelText('Ten strokes weigh (g)'), '5');
  await userEvent.type(screen.getByLabelText('Grease in it'), 'lithium{Enter}');
  await waitFor(() => expect(saved).toHaveBeenCalledWith('G-1'));
  expect(server.sent[0]?.body).toMatchObject({
    unit: 'mm',
    mark: 'point',
    person: 'ines',
    tag: ' G-1 ',
    grease: 'lithium',
    ten: '5',
  });
});

test('a sum is found by its name or by what it asks for', async () => {
  showOnBench(<Sums />);
  const names = () => screen.queryAllByRole('link').map((a) => a.textContent);
  const find = await screen.findByLabelText('Find');
  expect(names()).toEqual(['Packing', 'Leaves']);
  await userEvent.type(find, 'joint');
  expect(names()).toEqual(['Packing']);
  await userEvent.clear(find);
  await userEvent.type(find, 'nothing like it');
  expect(names()).toEqual([]);
  expect(screen.getByText(/Nothing asks for/)).toBeInTheDocument();
});
