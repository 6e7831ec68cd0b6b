import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import type { Ask, DraftPage, DraftState, ReadLine } from '../../api/client';
import { showOnBench, stubServer } from '../../test-bench';
import { ReadSheet } from '../ReadSheet';
import { wordsOf } from './gridLines';
import { SheetGrid } from './SheetGrid';
import { AskField } from './AskField';
import { useDraft } from './useDraft';

const ask = (path: string, label: string, more: Partial<Ask> = {}): Ask => ({
  path,
  label,
  kind: 'text',
  many: 'one',
  hint: '',
  required: false,
  unit: '',
  units: [],
  choices: [],
  ...more,
});
const LENGTH = { kind: 'quantity', unit: 'mm', units: ['mm', 'in'] };
const GRID = {
  path: 'torques',
  label: 'Torques',
  hint: '',
  required: false,
  most: 9,
  columns: [ask('fastener', 'Fastener'), ask('torque', 'Torque', LENGTH)],
  names: [],
};
const STATE: DraftState = {
  ...{ id: 7, version: 3, title: '', saved_at: '2026-01-02T03:04:05Z', form: 'a' },
  ...{ problems: [], remarks: [], overlaps: [], map: null, sizes: [] },
};
const PAGE: DraftPage = {
  state: STATE,
  ...{ purpose: 'new', family: 'F', system: 'mm', mark: 'point', base: '', base_slug: '', begun_by: '' },
  ...{ sections: [], fields: { maker: 'Old' }, units: {}, kept: [], pages: [] },
  grids: [{ table: 'torques', rows: [{ fastener: 'Lock nut' }] }],
};
let answers: (() => Response)[] = [];
const server = stubServer(() => (answers.shift() ?? (() => Response.json(STATE)))());
const saved = () => server.sent.filter((one) => one.body.version !== undefined).map((one) => one.body);

function Typing({ onForm = () => undefined, page = PAGE }: { onForm?: () => void; page?: DraftPage }) {
  const draft = useDraft(page, onForm);
  return (
    <>
      <AskField ask={ask('maker', 'Maker', { required: true })} draft={draft} />
      <AskField ask={ask('model', 'Model')} draft={draft} />
      <SheetGrid grid={GRID} draft={draft} />
      <button onClick={() => void draft.join()}>join</button>
      <p role="note">{draft.error ? 'not saved' : draft.waiting ? 'saving' : 'saved'}</p>
    </>
  );
}

test('what is typed is saved by itself, and what could not be sent goes with what was typed since', async () => {
  answers = [() => Response.error(), () => Response.json({ ...STATE, version: 4 })];
  showOnBench(<Typing />);
  const maker = screen.getByLabelText(/Maker/);
  // In one event each: keys further apart than the wait before a save are saves of their own.
  fireEvent.change(maker, { target: { value: 'New' } });
  await waitFor(() => expect(screen.getByRole('note')).toHaveTextContent('not saved'), { timeout: 6000 });
  fireEvent.change(maker, { target: { value: 'Newer' } });
  await waitFor(() => expect(screen.getByRole('note')).toHaveTextContent('saved'), { timeout: 6000 });
  await waitFor(() => expect(saved()).toHaveLength(2), { timeout: 6000 });
  expect(saved().map((one) => [one.version, one.fields])).toEqual([
    [3, { maker: 'New' }],
    [3, { maker: 'Newer' }],
  ]);
}, 15_000);

test('where somebody else typed meanwhile, theirs is shown with what is not saved over it', async () => {
  const theirs = { ...PAGE, state: { ...STATE, version: 9 }, fields: { maker: 'Theirs', model: 'M' } };
  answers = [
    () => Response.json({ code: 'conflict', reasons: [], suggestions: [] }, { status: 409 }),
    () => Response.json(theirs),
  ];
  showOnBench(<Typing />);
  fireEvent.change(screen.getByLabelText(/Maker/), { target: { value: 'Mine' } });
  await waitFor(() => expect(screen.getByRole('note')).toHaveTextContent('not saved'), { timeout: 6000 });
  await userEvent.click(screen.getByRole('button', { name: 'join' }));
  await waitFor(() => expect(saved()).toHaveLength(2));
  expect(saved().at(-1)).toMatchObject({ version: 9, fields: { maker: 'Mine' } });
  expect(screen.getByLabelText(/Maker/)).toHaveValue('Mine');
  expect(screen.getByLabelText(/Model/)).toHaveValue('M');
});

test('a mistake stands at its field and in words below its table', async () => {
  const problems = [
    {
      path: 'maker',
      problem: 'the text begins like a formula.',
      hint: 'Put a letter first.',
      missing: false,
    },
    { path: 'torques[0].torque', problem: 'the range is reversed.', hint: 'Lower first.', missing: false },
    { path: 'torques[1].fastener', problem: '', hint: '', missing: true },
  ];
  answers = [() => Response.json({ ...STATE, version: 4, problems })];
  showOnBench(<Typing />);
  await userEvent.type(screen.getByLabelText(/Maker/), '=');
  await waitFor(() => expect(screen.getByLabelText(/Maker/)).toHaveAttribute('aria-invalid', 'true'));
  expect(screen.getByLabelText(/Maker/)).toHaveAccessibleDescription(/begins like a formula/);
  expect(screen.getByRole('status')).toHaveTextContent('row 1, torque: the range is reversed.');
  expect(screen.getByRole('status')).toHaveTextContent('Not there yet: row 2, fastener.');
});

test('a pasted table goes in by rows, and its units over their columns', async () => {
  answers = [
    () =>
      Response.json({
        rows: [
          { row: '0', cells: { fastener: 'Head bolts', torque: '20' } },
          { row: '1', cells: { fastener: 'Cap screws', torque: '30' } },
        ],
        units: { torque: 'in' },
      }),
  ];
  showOnBench(<Typing />);
  await userEvent.click(screen.getByRole('button', { name: 'Paste a table' }));
  await userEvent.type(screen.getByLabelText(/Rows as they come/), 'Fastener;Torque');
  await userEvent.click(screen.getByRole('button', { name: 'Put them into the table' }));
  await waitFor(() => expect(saved()).toHaveLength(1), { timeout: 3000 });
  expect(saved()[0]).toMatchObject({
    grids: [
      {
        table: 'torques',
        rows: [
          { cells: { fastener: 'Head bolts', torque: '20' } },
          { cells: { fastener: 'Cap screws', torque: '30' } },
        ],
      },
    ],
    units: { 'torques.torque': 'in' },
  });
});

test('more rows than the table can have are refused whole', async () => {
  const rows = Array.from({ length: 10 }, (_, i) => ({ row: String(i), cells: { fastener: 'x' } }));
  answers = [() => Response.json({ rows, units: {} })];
  showOnBench(<Typing />);
  await userEvent.click(screen.getByRole('button', { name: 'Paste a table' }));
  await userEvent.type(screen.getByLabelText(/Rows as they come/), 'x');
  await userEvent.click(screen.getByRole('button', { name: 'Put them into the table' }));
  expect(await screen.findByRole('alert')).toHaveTextContent('it would have 10 rows, and it can have 9');
  expect(saved()).toHaveLength(0);
});

test('a pasted table in another unit than the numbers that stay is refused whole', async () => {
  answers = [() => Response.json({ rows: [{ row: '1', cells: { torque: '30' } }], units: { torque: 'in' } })];
  const page = { ...PAGE, grids: [{ table: 'torques', rows: [{ fastener: 'Lock nut', torque: '20' }] }] };
  showOnBench(<Typing page={page} />);
  await userEvent.click(screen.getByRole('button', { name: 'Paste a table' }));
  await userEvent.type(screen.getByLabelText(/Rows as they come/), 'x');
  await userEvent.click(screen.getByRole('button', { name: 'Put them into the table' }));
  expect(await screen.findByRole('alert')).toHaveTextContent('has numbers in mm already');
  expect(saved()).toHaveLength(0);
});

test('Enter goes down the column, and in the last row keeps the keyboard in the table', async () => {
  answers = Array.from({ length: 9 }, () => () => Response.json(STATE));
  showOnBench(<Typing />);
  const first = within(screen.getByRole('grid')).getAllByRole('gridcell')[1] as HTMLElement;
  await userEvent.click(first);
  await userEvent.keyboard('{Control>}a{/Control}One{Enter}nut two{Enter}nut three{Enter}nut four{Enter}');
  expect(document.activeElement?.closest('[role="gridcell"]')).not.toBeNull();
  await waitFor(
    () =>
      expect(saved().at(-1)?.grids).toMatchObject([
        {
          table: 'torques',
          rows: ['One', 'nut two', 'nut three', 'nut four'].map((fastener) => ({ cells: { fastener } })),
        },
      ]),
    { timeout: 3000 },
  );
});

test('another form is asked for once, when something else is asked', async () => {
  let forms = 0;
  answers = [() => Response.json({ ...STATE, version: 4, form: 'b' })];
  showOnBench(<Typing onForm={() => forms++} />);
  await userEvent.type(screen.getByLabelText(/Maker/), 'x');
  await waitFor(() => expect(forms).toBe(1), { timeout: 3000 });
});

test('a place in a table is said as a person says it', () => {
  const named = { ...GRID, path: 'features', names: [{ key: 'pin', number: 3, name: 'Idler pin' }] };
  expect(wordsOf(GRID, 'torques[2].torque')).toBe('row 3, torque');
  expect(wordsOf(GRID, 'torques[2].torque[0]')).toBe('row 3, torque');
  expect(wordsOf(named, 'features.pin')).toBe('Idler pin');
  expect(wordsOf(named, 'features.pin.torque')).toBe('Idler pin, torque');
});

const LINE: ReadLine = {
  ...{ path: 'a', section: 'S', label: 'Idler pin', number: 3, page: '8', said: 'x' },
  ...{ why_not: '', agrees: null, note: '', by: '', at: null, cells: [{ name: 'New', text: '30 mm' }] },
};

test('a key pressed twice agrees with one line, and what was pressed by mistake is taken back', async () => {
  const other = { ...LINE, path: 'b', label: 'Bore' };
  const agreed = { ...LINE, agrees: true, by: 'Bo', at: '2026-01-02T03:04:05Z' };
  const page = { slug: '', title: 'T', revision: '', read_at: null, read_names: '', read_alone: false };
  answers = [[LINE, other], ...Array.from({ length: 3 }, () => [agreed, other])].map(
    (lines) => () => Response.json({ ...page, lines, pages: [] }),
  );
  showOnBench(<ReadSheet />);
  const second = await screen.findByRole('button', { name: 'Bore agrees' });
  const asked = server.sent.length;
  fireEvent.click(screen.getByRole('button', { name: 'Idler pin agrees' }));
  await waitFor(() => expect(second).toHaveFocus());
  fireEvent.click(second);
  await new Promise((done) => setTimeout(done, 60));
  expect(server.sent).toHaveLength(asked + 1);
  expect(await screen.findByRole('button', { name: 'It differs after all' })).toBeEnabled();
});

test('a line that differs says how, and one that was typed here is left to others', async () => {
  const mine = { ...LINE, path: 'b', label: 'Bore', why_not: 'You typed it: somebody else reads it.' };
  const page = { slug: 's', title: 'T', revision: '1', read_at: null, read_names: '', read_alone: false };
  answers = Array.from({ length: 3 }, () => () => Response.json({ ...page, lines: [LINE, mine], pages: [] }));
  showOnBench(<ReadSheet />);
  const row = (await screen.findByText(/Idler pin/)).closest('li');
  expect(screen.getByText(/You typed it/)).toBeInTheDocument();
  expect(screen.queryByRole('button', { name: 'Bore agrees' })).toBeNull();
  await userEvent.click(within(row as HTMLElement).getByRole('button', { name: 'Differs' }));
  const send = screen.getByRole('button', { name: 'It differs' });
  expect(send).toBeDisabled();
  await userEvent.type(screen.getByLabelText('What the manual prints'), '31 mm');
  await userEvent.click(send);
  await waitFor(() =>
    expect(server.sent.at(-1)?.body).toMatchObject({ path: 'a', said: 'x', agrees: false, note: '31 mm' }),
  );
});
