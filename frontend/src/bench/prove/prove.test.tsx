import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import type { Coach, TaskView } from '../../api/client';
import { RunInPlot } from '../../drawing/RunInPlot';
import { refusal, showOnBench, stubServer } from '../../test-bench';
import { Prove } from './Prove';
import { aJob, aStep } from '../../test-builders';

const server = stubServer(() => Response.json({ ...JOB, version: 8 }));
const { sent } = server;

const note = (minute: number, drops: number, box_c: number, eighths = 0) => ({
  id: '',
  number: minute,
  minute,
  drops,
  drops_text: `${drops}`,
  box_c,
  box: `${box_c} °C`,
  eighths,
  turn: eighths ? 'tightened 1/8' : '',
  by: 'Ines',
  at: '2026-01-02T03:04:05Z',
});

const COACH: Coach = {
  kind: 'run-in',
  key: 'run-in',
  say: 'tighten',
  headline: 'Tighten an eighth of a turn, both nuts evenly',
  why: '60 drops a minute, 2 to 10 are wanted.',
  eighths: 1,
  wait_min: 0,
  drops: [2, 10],
  hottest_c: 60,
  hottest: '60 °C',
  notes: [note(0, 80, 25), note(12, 60, 30)],
};

const job = (task: TaskView) =>
  aJob({ steps: [aStep({ key: 'a', text: 'Run in: slowly.', tasks: [task.key] })], tasks: [task] });
const JOB = job(COACH);

test('drops are counted by tapping a key, the line goes with box and turn, and nothing is lost by a refusal', async () => {
  const clock = vi.spyOn(performance, 'now');
  showOnBench(<Prove job={JOB} />, JOB);
  for (const at of [1000, 1040, 3000, 6000]) {
    clock.mockReturnValue(at);
    fireEvent.keyDown(window, { key: 'k' });
  }
  clock.mockRestore();
  await userEvent.type(screen.getByLabelText('Box (°C)'), '48');
  await userEvent.click(screen.getByLabelText('tightened 1/8'));
  server.answer = () => refusal({ field: 'minute', problem: 'the last line was at 12 min.' });
  await userEvent.click(screen.getByRole('button', { name: 'Save line 3' }));
  expect(await screen.findByRole('alert')).toHaveTextContent('Minute: the last line was at 12 min.');
  // the second press came too soon to be another drop
  expect(sent[0]?.body).toMatchObject({ taps_s: [0, 2, 5], drops: '', box: '48', eighths: 1 });
  await userEvent.type(screen.getByLabelText('Or drops a minute'), '30');
  await userEvent.click(screen.getByRole('button', { name: 'Save line 3' }));
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]?.body).toMatchObject({ taps_s: [], drops: '30', box: '48', id: sent[0]?.body.id });
});

test('what the coach says stands over the log, and the log is drawn in its range', () => {
  showOnBench(<Prove job={JOB} />, JOB);
  expect(screen.getByText(COACH.headline)).toBeInTheDocument();
  const rows = within(screen.getByRole('table')).getAllByRole('row');
  expect(rows).toHaveLength(1 + COACH.notes.length);
  expect(screen.getByRole('img', { name: /minute 12, 60 drops, 30 °C/ })).toBeInTheDocument();
});

test('the plot puts more drops higher, later lines further right, and marks every turn of the gland', () => {
  const turned = { ...COACH, notes: [note(0, 80, 25), note(12, 40, 50, 1), note(24, 9, 70, -1)] };
  const { container } = showOnBench(<RunInPlot coach={turned} />);
  const dots = [...container.querySelectorAll('.size-dot:not(.hollow)')];
  const at = (name: string) => dots.map((d) => Number(d.getAttribute(name)));
  const [x0 = 0, x1 = 0, x2 = 0] = at('cx');
  const [y0 = 0, y1 = 0, y2 = 0] = at('cy');
  expect(x0 < x1 && x1 < x2 && y0 < y1 && y1 < y2).toBe(true);
  expect(x1 - x0).toBeCloseTo(x2 - x1);
  const band = container.querySelector('.window');
  const top = Number(band?.getAttribute('y'));
  expect(y1).toBeLessThan(top); // 40 is over the range
  expect(y2).toBeGreaterThan(top); // 9 is in it
  expect(container.querySelectorAll('.arrow-head')).toHaveLength(1);
  expect(container.querySelectorAll('.back-off')).toHaveLength(1);
});

test('tight spots are told by the clock; with none the shaft is free', async () => {
  showOnBench(<Prove job={job({ kind: 'turning', key: 'turning:a', step: 'a', seen: null })} />, JOB);
  await userEvent.click(screen.getByRole('button', { name: "tight at 4 o'clock" }));
  await userEvent.click(screen.getByRole('button', { name: "tight at 11 o'clock" }));
  await userEvent.click(screen.getByRole('button', { name: 'Record: tight at 4, 11' }));
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]?.body).toMatchObject({ seen: 'turning', places: ['4', '11'] });
  await userEvent.click(screen.getByRole('button', { name: "tight at 4 o'clock" }));
  await userEvent.click(screen.getByRole('button', { name: "tight at 11 o'clock" }));
  await userEvent.click(screen.getByRole('button', { name: 'Turns freely all the way round' }));
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]?.body).toMatchObject({ places: [] });
});

test('a flow goes as bucket and seconds or as a meter reading, a noise as its name', async () => {
  showOnBench(
    <Prove
      job={job({
        kind: 'first-hour',
        key: 'first-hour:a',
        step: 'a',
        lines: [],
        seen: [],
        noises: [{ key: 'rub', name: 'a rub' }],
      })}
    />,
    JOB,
  );
  const row = (name: string) => screen.getByRole('form', { name });
  await userEvent.type(within(row('bucket')).getByLabelText('Flow: bucket (L)'), '10');
  await userEvent.type(within(row('bucket')).getByLabelText('in seconds'), '12{Enter}');
  await userEvent.selectOptions(within(row('noise')).getByLabelText('Noise'), 'rub');
  await userEvent.click(within(row('noise')).getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[0]?.body).toMatchObject({ seen: 'flow', typed: '10', seconds: '12' });
  expect(sent[1]?.body).toMatchObject({ seen: 'noise', typed: 'rub', seconds: '' });
  expect(sent[0]?.body.id).not.toBe(sent[1]?.body.id);
});
