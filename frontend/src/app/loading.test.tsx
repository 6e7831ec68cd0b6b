import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { expect, test } from 'vitest';
import { ofTheSame } from '../api/queries';
import { Waits } from '../bench/job/Waits';
import { showOnBench } from '../test-bench';
import { Loaded } from './Loading';

/** What each ask is answered: a text, nothing yet, or a fault. */
let answers: Record<string, () => Promise<string>> = {};
const never = () => new Promise<string>(() => undefined);

function Asked() {
  const [of, setOf] = useState('tallow');
  const query = useQuery({
    queryKey: ['found', of],
    queryFn: () => answers[of]?.() ?? never(),
    placeholderData: keepPreviousData,
    retry: 1,
    retryDelay: of === 'resin' ? 60_000 : 10,
  });
  return (
    <>
      <button onClick={() => setOf('resin')}>resin</button>
      <button onClick={() => void query.refetch()}>again</button>
      <Loaded query={query} what="the fleet">
        {(found) => <p>{found}</p>}
      </Loaded>
    </>
  );
}

test('what was found before is said not to be what is asked for now', async () => {
  answers = { tallow: () => Promise.resolve('P-207'), resin: never };
  showOnBench(<Asked />);
  expect(await screen.findByText('P-207')).toBeVisible();
  expect(screen.queryByRole('status')).toBeNull();
  await userEvent.click(screen.getByText('resin'));
  expect(screen.getByRole('status')).toHaveTextContent('Reading the fleet …');
});

test('where the server does not answer, that is said over what was asked for before', async () => {
  answers = { tallow: () => Promise.resolve('P-207'), resin: () => Promise.reject(new Error('away')) };
  showOnBench(<Asked />);
  await screen.findByText('P-207');
  await userEvent.click(screen.getByText('resin'));
  expect(await screen.findByText(/does not answer. Below is what was asked for before/)).toBeVisible();
});

test('what could not be read anew says of when it is', async () => {
  answers = { tallow: () => Promise.resolve('P-207') };
  showOnBench(<Asked />);
  await screen.findByText('P-207');
  answers = { tallow: () => Promise.reject(new Error('It is away.')) };
  await userEvent.click(screen.getByText('again'));
  expect(await screen.findByText(/^As it was on .* It is away\.$/)).toBeVisible();
  expect(screen.getByText('P-207')).toBeVisible();
});

test('only the same thing stays while it is read in another unit', () => {
  const before = { queryKey: ['pump', 'P-207', 'mm'] };
  expect(ofTheSame('pump', 'P-207')('its page', before)).toBe('its page');
  expect(ofTheSame('pump', 'P-112')('its page', before)).toBeUndefined();
  expect(ofTheSame('pump', 'P-112')(undefined, undefined)).toBeUndefined();
});

function Saves() {
  const save = useMutation({
    mutationFn: () => Promise.reject(new Error('away')),
    retry: 1,
    retryDelay: 60_000,
  });
  return (
    <>
      <Waits />
      <button onClick={() => save.mutate()}>Save note</button>
    </>
  );
}

test('what was sent and not answered is said to be not saved', async () => {
  showOnBench(<Saves />);
  expect(screen.queryByRole('status')).toBeNull();
  await userEvent.click(screen.getByText('Save note'));
  expect(await screen.findByText('One thing is not saved yet.')).toBeVisible();
});
