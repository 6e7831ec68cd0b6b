import { queryOptions, useInfiniteQuery } from '@tanstack/react-query';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { expect, test, vi } from 'vitest';
import { jobsQuery } from '../api/queries';
import { showOnBench, stubServer } from '../test-bench';
import { Finder } from './Finder';
import { Listed } from './Listed';

const numbers = (from: number, count: number) =>
  Array.from({ length: count }, (_, i) => ({ number: from + i }));
const server = stubServer(() => Response.json({ lines: numbers(1, 50), more: true }));

function Numbers({ sought = '' }: { sought?: string }) {
  const jobs = useInfiniteQuery(jobsQuery('open', sought));
  return (
    <Listed query={jobs} what="the open jobs" empty="None at all." sought={sought}>
      {(lines) => lines.map((line) => <i key={line.number}>{line.number}</i>)}
    </Listed>
  );
}

test('a list is shown a page at a time, and says when there is no more', async () => {
  showOnBench(<Numbers />);
  const more = await screen.findByRole('button', { name: 'More of the open jobs' });
  expect(screen.getByText('50')).toBeInTheDocument();
  server.answer = () => Response.json({ lines: numbers(51, 3), more: false });
  await userEvent.click(more);
  expect(await screen.findByText('53')).toBeInTheDocument();
  expect(screen.getByText('1')).toBeInTheDocument();
  expect(more).not.toBeInTheDocument();
  expect(server.sent.map(({ url }) => new URL(url).searchParams.get('page'))).toEqual(['1', '2']);
});

test('an empty list says so, and says what was not found', async () => {
  server.answer = () => Response.json({ lines: [], more: false });
  showOnBench(<Numbers />);
  expect(await screen.findByText('None at all.')).toBeInTheDocument();
  showOnBench(<Numbers sought="wax" />);
  expect(await screen.findByText('Nothing with “wax” in it.')).toBeInTheDocument();
});

let asked: string[] = [];
const ask = (sought: string) =>
  queryOptions({
    queryKey: ['found', sought],
    queryFn: () => {
      asked.push(sought);
      const lines = [...Array(sought === 'one' ? 1 : 12).keys()].map((i) => ({
        key: `${sought}${i}`,
        taken: i === 1,
      }));
      return Promise.resolve({ lines, more: false });
    },
  });

const sent = vi.fn((event: React.FormEvent) => event.preventDefault());

function Form() {
  const [chosen, setChosen] = useState('');
  return (
    <form onSubmit={sent}>
      <output>{chosen}</output>
      <Finder
        label="Pump"
        find="Find"
        what="the pumps"
        ask={ask}
        keyOf={(line) => line.key}
        isTaken={(line) => line.taken}
        value={chosen}
        onChoose={setChosen}
      >
        {(line) => line.key}
      </Finder>
    </form>
  );
}

test('one of many is found by words, asked for once typing pauses; what is taken cannot be chosen', async () => {
  asked = [];
  showOnBench(<Form />);
  expect(await screen.findAllByRole('radio')).toHaveLength(8);
  expect(screen.getByText('There are more; a word narrows them.')).toBeInTheDocument();
  expect(screen.getByRole('radio', { name: '1' })).toBeDisabled();
  await userEvent.type(screen.getByLabelText('Find'), 'wax');
  await userEvent.click(await screen.findByRole('radio', { name: 'wax2' }));
  expect(screen.getByRole('status')).toHaveTextContent('wax2');
  expect(asked).toEqual(['', 'wax']);
});

test('Enter chooses what alone was found, and sends no form with what was chosen before', async () => {
  showOnBench(<Form />);
  await userEvent.click(await screen.findByRole('radio', { name: '2' }));
  await userEvent.type(screen.getByLabelText('Find'), 'wax{Enter}');
  expect(await screen.findByRole('radio', { name: 'wax0' })).not.toBeChecked();
  await userEvent.type(screen.getByLabelText('Find'), '{Enter}');
  expect(screen.getByRole('status')).toHaveTextContent(/^2$/);
  await userEvent.clear(screen.getByLabelText('Find'));
  await userEvent.type(screen.getByLabelText('Find'), 'one');
  await screen.findByRole('radio', { name: 'one0' });
  await userEvent.type(screen.getByLabelText('Find'), '{Enter}');
  expect(screen.getByRole('status')).toHaveTextContent('one0');
  expect(sent).not.toHaveBeenCalled();
});
