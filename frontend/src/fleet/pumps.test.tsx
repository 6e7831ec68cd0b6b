import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import type { PumpChoices, PumpDetail } from '../api/client';
import { showOnBench, stubServer } from '../test-bench';
import { AddPump } from './AddPump';
import { PumpForm } from './PumpForm';

const named = (...keys: string[]) => keys.map((key) => ({ key, name: key }));
const SEAL = { key: 'seal', name: 'Shaft seal', choices: named('lip', 'face'), usual: 'lip', when: {} };
const PACKED = {
  key: 'gland',
  name: 'Gland',
  choices: named('split', 'whole'),
  usual: 'split',
  when: { seal: ['face'] },
};
const ONE: PumpChoices = {
  sheet: 'one',
  title: 'One',
  materials: ['iron'],
  media: [],
  options: [SEAL, PACKED],
};
const TWO = {
  ...ONE,
  sheet: 'two',
  title: 'Two',
  materials: ['steel'],
  options: [{ ...SEAL, usual: 'face' }],
};
const LINES = [ONE, TWO].map((of) => ({ slug: of.sheet, title: of.title, revision: 'A' }));
const server = stubServer(() => {
  const url = server.sent.at(-1)?.url ?? '';
  if (url.includes('sheet-choices/one')) return Response.json(ONE);
  if (url.includes('sheet-choices/two')) return Response.json(TWO);
  return Response.json(
    url.includes('/api/sheets') ? { lines: LINES, more: false } : { line: { tag: 'P-1' } },
  );
});
const posted = () => server.sent.find((one) => 'tag' in one.body)?.body;

test('another sheet keeps what was typed, and asks for its own material and build', async () => {
  showOnBench(<AddPump onHide={() => undefined} />);
  await userEvent.click(await screen.findByLabelText(/One/));
  await userEvent.type(await screen.findByLabelText('Tag'), 'P-1');
  expect(screen.queryByLabelText('Gland')).toBeNull();
  await userEvent.selectOptions(screen.getByLabelText('Shaft seal'), 'face');
  await userEvent.selectOptions(screen.getByLabelText('Gland'), 'whole');
  await userEvent.click(screen.getByLabelText(/Two/));
  await waitFor(() => expect(screen.getByLabelText(/Material/)).toHaveValue('steel'));
  expect(screen.getByLabelText('Tag')).toHaveValue('P-1');
  expect(screen.queryByLabelText('Gland')).toBeNull();
  await userEvent.selectOptions(screen.getByLabelText('Shaft seal'), 'lip');
  await userEvent.dblClick(screen.getByRole('button', { name: 'Add the pump' }));
  await waitFor(() => expect(posted()).toBeDefined());
  expect(posted()).toMatchObject({ tag: 'P-1', sheet: 'two', material: 'steel', build: { seal: 'lip' } });
});

test('a pump put to another sheet is sent as the page shows it built', async () => {
  const entered = {
    version: 3,
    material: 'iron',
    choices: ONE,
    medium: '',
    build: { seal: 'face', gland: 'whole' },
  };
  const page = { line: { tag: 'P-1' }, wet: true, entered } as unknown as PumpDetail;
  showOnBench(<PumpForm page={page} onHide={() => undefined} />);
  await userEvent.click(await screen.findByLabelText(/Two/));
  await waitFor(() => expect(screen.getByLabelText(/Material/)).toHaveValue('steel'));
  expect(screen.getByLabelText('Shaft seal')).toHaveValue('face');
  await userEvent.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(posted()).toBeDefined());
  // its seal is what the second sheet's pumps have
  expect(posted()).toMatchObject({ version: 3, sheet: 'two', material: 'steel', build: {}, wet: true });
});
