import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import type { Talk as TalkData } from '../../api/client';
import { showOnBench, stubServer } from '../../test-bench';
import { aFeature, aGauge, aJob } from '../../test-builders';
import { FromPaper } from '../inspect/FromPaper';
import { Talk } from './Talk';

const NOTE: TalkData['notes'][number] = {
  id: 'n-1',
  text: 'pin in the drawer',
  by: 'Otto',
  at: '2026-01-02T03:04:05Z',
  handover: true,
  to: 'Ines',
  taken_by: '',
  taken_at: null,
  may_take: true,
  struck_reason: '',
};
const TALK: TalkData = {
  here: [{ name: 'Otto', last: '2026-01-02T03:04:05Z', looking: true }],
  notes: [NOTE],
  more: false,
  since: {
    at: '2026-01-01T03:04:05Z',
    lines: [{ version: 9, what: 'Reading of the bore', by: 'Otto', at: '2026-01-02T03:04:05Z' }],
    more: false,
  },
};
const server = stubServer(() => Response.json({ ...TALK, since: null }));
const { sent } = server;

test('who is on it, what waits to be taken over, and what changed since one looked until it is read', async () => {
  server.answer = () => Response.json(TALK);
  showOnBench(<Talk job={aJob({ version: 9 })} />);
  expect(await screen.findByText('On it: Otto (has it open)')).toBeVisible();
  expect(screen.getByText(/Otto hands it over to you: “pin in the drawer”/)).toBeVisible();
  await userEvent.click(screen.getByRole('button', { name: /1 change by others since you looked/ }));
  expect(screen.getByText('Reading of the bore')).toBeVisible();
  await userEvent.click(screen.getByRole('button', { name: 'Read' }));
  expect(screen.queryByText(/since you looked/)).toBeNull();
  await waitFor(() => expect(sent.at(-1)?.url).toContain('/looked'));
  expect(sent.at(-1)?.body).toEqual({ version: 9 });
});

test('a hand-over is taken, and a note is written under one identity however often it is pressed', async () => {
  showOnBench(<Talk job={aJob({})} />);
  await userEvent.click(await screen.findByRole('button', { name: 'Notes (1)' }));
  await userEvent.click(await screen.findByRole('button', { name: 'Take it over' }));
  await waitFor(() => expect(sent.at(-1)?.url).toContain('/notes/n-1/take'));
  await userEvent.type(screen.getByLabelText('Note'), 'burr dressed');
  await userEvent.dblClick(screen.getByRole('button', { name: 'Save note' }));
  await waitFor(() => expect(sent.filter((one) => one.body.text === 'burr dressed')).toHaveLength(1));
  expect(sent.find((one) => one.body.text)?.body).toMatchObject({ handover: false, to: '', person: 'ines' });
});

const PIN = aFeature({
  key: 'pin',
  name: 'Pin',
  stations: [
    { key: 'front', plane: '', direction: '', label: 'front' },
    { key: 'back', plane: '', direction: '', label: 'back' },
  ],
});

test('numbers from paper: no box before the gauge is chosen, Enter saves and goes on, a leaf pair is two', async () => {
  const job = aJob({
    features: [PIN],
    gauges: [aGauge('M-1', 'outside micrometer'), aGauge('F-1', 'feeler set')],
  });
  server.answer = () => Response.json({ ...job, version: 2 });
  const hide = vi.fn();
  showOnBench(<FromPaper job={job} features={[PIN]} onHide={hide} />, job);
  const [front, back] = [screen.getByLabelText('Pin, front'), screen.getByLabelText('Pin, back')];
  expect(front).toBeDisabled();
  await userEvent.selectOptions(screen.getByLabelText('Gauge for Pin'), 'M-1');
  await userEvent.type(front, '29.95{Enter}');
  await waitFor(() =>
    expect(sent.at(-1)?.body).toMatchObject({ feature: 'pin', station: 'front', typed: '29.95' }),
  );
  expect(back).toHaveFocus();
  await userEvent.selectOptions(screen.getByLabelText('Gauge for Pin'), 'F-1');
  expect(back).toHaveAttribute('inputmode', 'text'); // a keypad of figures has no stroke
  await userEvent.type(back, '0.20/0.25');
  await userEvent.click(screen.getByRole('button', { name: 'Back to the drawing' }));
  expect(hide).not.toHaveBeenCalled();
  expect(screen.getByRole('alert')).toHaveTextContent('1 box holds a number that is not saved');
  await userEvent.type(back, '{Enter}');
  await waitFor(() =>
    expect(sent.at(-1)?.body).toMatchObject({ station: 'back', typed: '0.20', stops: '0.25', gauge: 'F-1' }),
  );
});
