import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { showOnBench } from '../test-bench';
import { FromFile } from './RowsFromFile';

const GAUGES = { url: '/api/gauges/file', row: 'gauge', note: '', stale: ['gauges'] } as const;

const FILE = new File(['Tag,Kind\nM-7,caliper\n'], 'gauges.csv', { type: 'text/csv' });
const row = (number: number, name: string, wrong = '') => ({
  number,
  name,
  read: 'caliper, 0 to 150 mm',
  wrong,
});

function serve(...answers: Response[]) {
  const bodies: FormData[] = [];
  vi.stubGlobal('fetch', (_: string, { body }: { body: FormData }) => {
    bodies.push(body);
    return Promise.resolve(answers[bodies.length - 1] ?? Response.error());
  });
  return bodies;
}

test('every gauge is tried first, and all are put in by a second press', async () => {
  const bodies = serve(
    Response.json({ rows: [row(1, 'M-7'), row(2, 'M-8')], kept: 0 }),
    Response.json({ rows: [row(1, 'M-7'), row(2, 'M-8')], kept: 2 }),
  );
  const kept = vi.fn();
  showOnBench(<FromFile {...GAUGES} onKept={kept} />);
  await userEvent.upload(screen.getByLabelText('File of gauges'), FILE);
  expect(await screen.findByRole('status')).toHaveTextContent('gauges.csv: 2 gauges, nothing wrong.');
  expect(kept).not.toHaveBeenCalled();
  expect(screen.getAllByRole('listitem')[0]).toHaveTextContent('M-7 caliper, 0 to 150 mm');
  await userEvent.click(screen.getByRole('button', { name: 'Keep all 2' }));
  await vi.waitFor(() => expect(kept).toHaveBeenCalledOnce());
  expect(
    bodies.map((body) => [body.get('dry'), body.get('person'), (body.get('file') as File).name]),
  ).toEqual([
    ['true', 'ines', 'gauges.csv'],
    ['false', 'ines', 'gauges.csv'],
  ]);
});

test('what is wrong is said by gauge, and nothing can be put in', async () => {
  serve(
    Response.json({ rows: [row(1, 'M-7'), row(2, '', 'tag: none.'), row(3, 'M-9', 'due: early.')], kept: 0 }),
  );
  showOnBench(<FromFile {...GAUGES} onKept={vi.fn()} />);
  await userEvent.upload(screen.getByLabelText('File of gauges'), FILE);
  expect(await screen.findByRole('status')).toHaveTextContent('3 gauges, 2 wrong.');
  expect(screen.getAllByRole('listitem').map((one) => one.textContent)).toEqual([
    'gauge 2 tag: none.',
    'M-9 due: early.',
  ]);
  expect(screen.queryByRole('button', { name: /Keep/ })).toBeNull();
});
