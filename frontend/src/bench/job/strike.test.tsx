import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import type { Step } from '../../api/client';
import { showOnBench, stubServer } from '../../test-bench';
import { Decide } from '../decide/Decide';
import { Steps } from '../steps/Steps';
import { TryForm } from '../set/TryForm';
import { aFeature, aJob, aJudged, aStep } from '../../test-builders';
import { aPiece, aSetting, byGaskets } from '../../test-settings';

const JOB = aJob();
const server = stubServer(() => Response.json(JOB));
const { sent } = server;

const step = (more: Partial<Step>) =>
  aStep({ key: 'bump', text: 'Rotation by a bump.', hold: true, ...more });

test('a step that is not its turn says what comes first, and is done by neither key nor hand', async () => {
  const early = step({ early: ['First: Guards back on.'] });
  showOnBench(<Steps job={{ ...JOB, steps: [early] }} stage="prove" />, JOB);
  expect(screen.getByText(/It is not its turn yet. First: Guards back on./)).toBeInTheDocument();
  expect(screen.getByRole('button', { name: 'Done' })).toBeDisabled();
  await new Promise((read) => setTimeout(read, 450));
  await userEvent.keyboard('d');
  expect(sent).toEqual([]);
  expect(screen.queryByRole('button', { name: /as lead/ })).toBeNull();
});

test('a decision is struck out by what it is, with its reason', async () => {
  const decision = { id: 'd1', decided: 'change', reason: 'worn', parts: [], by: 'Ines', at: '' };
  const feature = aFeature({ key: 'pin', number: 3, name: 'Idler pin', judged: aJudged('Change'), decision });
  showOnBench(<Decide job={{ ...JOB, features: [feature] }} />, JOB);
  await userEvent.click(screen.getByRole('button', { name: 'strike out: Idler pin: change' }));
  await userEvent.type(screen.getByLabelText(/Why is it struck out/), 'another pump{Enter}');
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]?.body).toMatchObject({ kind: 'decision', record: 'd1', reason: 'another pump' });
});

const SETTING = aSetting({
  means: byGaskets({ now: [aPiece(250, 1)], next: [aPiece(100, 1)], box: [aPiece(100, 2)] }),
  feelers: ['F-1'],
  opens: ['Head on to its marks, tilted.'],
});

test('a try that opens the pump says what it takes apart, and asks for the trial in one tick', async () => {
  showOnBench(<TryForm job={JOB} setting={SETTING} />, JOB);
  expect(
    screen.getByText(/done again here, after the last change: Head on to its marks/),
  ).toBeInTheDocument();
  await userEvent.click(screen.getByLabelText(/Tightened for the trial/));
  await userEvent.click(screen.getByRole('button', { name: 'Record try 1' }));
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]?.body).toMatchObject({ trial: true, opened: null, stacks_um: [[100]] });
});

test('of a pump put together at Build it is asked whether the first try opened it, and nothing is taken for granted', async () => {
  showOnBench(<TryForm job={JOB} setting={{ ...SETTING, asks_opened: true }} />, JOB);
  expect(screen.queryByLabelText(/Tightened for the trial/)).toBeNull();
  await userEvent.click(screen.getByRole('button', { name: 'Record try 1' }));
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]?.body).toMatchObject({ opened: null, trial: false });
  await userEvent.click(screen.getByLabelText('opened'));
  expect(screen.getByLabelText(/Tightened for the trial/)).not.toBeChecked();
});
