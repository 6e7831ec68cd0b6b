import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import type { People, Person } from '../api/client';
import { refusal, showOnBench, stubServer } from '../test-bench';
import { MePage } from './MePage';
import { SomebodyElse } from './SomebodyElse';

const person = (username: string, name: string, more: Partial<Person> = {}): Person => ({
  username,
  name,
  role: 'technician',
  has_pin: true,
  works_here: true,
  signed_in: false,
  second_factor: false,
  locked: [],
  pin_locked: false,
  ...more,
});

const ADA = person('ada', 'Ada', { role: 'lead', signed_in: true });
const HERE: People = {
  me: ADA,
  people: [ADA, person('bo', 'Bo', { has_pin: false }), person('cy', 'Cy', { works_here: false })],
  log: [{ person: 'Cy', by: 'Ada', at: '2026-11-28T08:00:00Z', what: 'works here no more' }],
};

const server = stubServer(() => Response.json(HERE));
/** What was changed, in order. */
const changes = () =>
  server.sent
    .filter(({ body }) => Object.keys(body).length > 0)
    .map(({ url, body }) => ({ url: new URL(url).pathname, body }));

test('everybody is said with role, PIN and whether they are signed in or here no more', async () => {
  showOnBench(<MePage />);
  const list = within(await screen.findByRole('region', { name: 'Everybody' }));
  expect(list.getAllByRole('listitem').map((one) => one.textContent)).toEqual([
    'Ada, lead, has a PIN, signed inchange',
    'Bo, technician, no PIN yetchange',
    'Cy, technician, works here no morechange',
    expect.stringContaining('Cy: works here no more'),
  ]);
});

test('a lead makes somebody lead, sets a password, and says who works here no more', async () => {
  showOnBench(<MePage />);
  await userEvent.click(await screen.findByRole('button', { name: 'Change Bo' }));
  expect(screen.queryByRole('button', { name: 'Clear the PIN' })).toBeNull();
  await userEvent.click(screen.getByRole('button', { name: 'Make lead' }));
  await waitFor(() => expect(screen.queryByRole('button', { name: 'Make lead' })).toBeNull());
  await userEvent.click(screen.getByRole('button', { name: 'Change Bo' }));
  await userEvent.type(screen.getByLabelText('New password for Bo'), 'vice-and-bench{Enter}');
  await waitFor(() => expect(changes()).toHaveLength(2));
  await userEvent.click(screen.getByRole('button', { name: 'Change Cy' }));
  await userEvent.click(screen.getByRole('button', { name: 'Works here again' }));
  await waitFor(() => expect(changes()).toHaveLength(3));
  expect(changes()).toEqual([
    { url: '/api/people/bo/change', body: { role: 'lead' } },
    { url: '/api/people/bo/change', body: { password: 'vice-and-bench' } },
    { url: '/api/people/cy/change', body: { works_here: true } },
  ]);
});

test('a refusal is said where it was asked, and what was typed stays', async () => {
  showOnBench(<MePage />);
  const form = within(await screen.findByRole('form', { name: 'Somebody new' }));
  await userEvent.type(form.getByLabelText('First name'), 'Bo');
  await userEvent.type(form.getByLabelText('Name to sign in with'), 'bo');
  await userEvent.type(form.getByLabelText('Password to begin with'), 'vice-and-bench');
  server.answer = () => refusal({ field: 'name to sign in with', problem: 'bo is taken.' });
  await userEvent.click(form.getByRole('button', { name: 'Add' }));
  expect(await form.findByRole('alert')).toHaveTextContent('bo is taken.');
  expect(form.getByLabelText('First name')).toHaveValue('Bo');
  expect(changes()[0]?.body).toMatchObject({ username: 'bo', role: 'technician' });
});

test('a new password is sent once both are the same', async () => {
  showOnBench(<MePage />);
  await userEvent.click(await screen.findByText('Change your password'));
  const form = within(screen.getByRole('form', { name: 'Your password' }));
  await userEvent.type(form.getByLabelText('The old password'), 'old-and-worn');
  await userEvent.type(form.getByLabelText('The new password'), 'new-and-sound');
  await userEvent.type(form.getByLabelText('The new one again'), 'new-and-sour');
  expect(form.getByText('The two are not the same.')).toBeVisible();
  expect(form.getByRole('button', { name: 'Change the password' })).toBeDisabled();
  await userEvent.clear(form.getByLabelText('The new one again'));
  await userEvent.type(form.getByLabelText('The new one again'), 'new-and-sound{Enter}');
  expect(await form.findByText(/signed out everywhere else/)).toBeVisible();
  expect(changes()).toEqual([
    { url: '/api/people/password', body: { old: 'old-and-worn', new: 'new-and-sound' } },
  ]);
});

test('a lock is said with its place, and a lead ends it', async () => {
  server.answer = () =>
    Response.json({
      ...HERE,
      people: [ADA, person('bo', 'Bo', { locked: ['192.168.1.31'], second_factor: true })],
    });
  showOnBench(<MePage />);
  expect(await screen.findByText(/locked at 192.168.1.31/)).toBeVisible();
  await userEvent.click(screen.getByRole('button', { name: 'Change Bo' }));
  await userEvent.click(screen.getByRole('button', { name: 'Unlock' }));
  await waitFor(() => expect(screen.queryByRole('button', { name: 'Unlock' })).toBeNull());
  await userEvent.click(screen.getByRole('button', { name: 'Change Bo' }));
  await userEvent.click(screen.getByRole('button', { name: 'Take the second factor off' }));
  await waitFor(() => expect(server.sent.at(-1)?.url).toMatch(/bo\/second\/clear$/));
  expect(server.sent.some(({ url }) => url.endsWith('/api/people/bo/unlock'))).toBe(true);
});

test('a second factor is set up with a first code, and the codes on paper stay in sight', async () => {
  const answers: Record<string, unknown> = {
    '/api/people/second': { picture: '<svg/>', key: 'ABCDEFGH' },
    '/api/people/second/code': { codes: ['paper-one', 'paper-two'] },
  };
  server.answer = () => Response.json(answers[new URL(server.sent.at(-1)?.url ?? '').pathname] ?? HERE);
  showOnBench(<MePage />);
  await userEvent.type(await screen.findByLabelText('Your password, to set it up'), 'lathe-and-lamp{Enter}');
  expect(await screen.findByText('ABCD EFGH')).toBeVisible();
  server.answer = () =>
    Response.json(
      server.sent.at(-1)?.url.endsWith('/second/code')
        ? answers['/api/people/second/code']
        : { ...HERE, me: { ...ADA, second_factor: true } },
    );
  await userEvent.type(screen.getByLabelText('The code it shows'), '123456{Enter}');
  expect(await screen.findByText('paper-two')).toBeVisible();
  expect(await screen.findByText(/Take it off/, { selector: 'summary' })).toBeVisible();
  expect(screen.getByText('paper-one')).toBeVisible();
  expect(changes()).toEqual([
    { url: '/api/people/second', body: { password: 'lathe-and-lamp' } },
    { url: '/api/people/second/code', body: { code: '123456' } },
  ]);
});

test('at a browser in use a lead with a second factor is asked for both', async () => {
  server.answer = () => Response.json([{ username: 'ada', name: 'Ada', by: 'password and code' }]);
  showOnBench(<SomebodyElse />);
  await userEvent.click(screen.getByRole('button', { name: 'Change person' }));
  await userEvent.click(await screen.findByRole('radio', { name: 'Ada' }));
  await userEvent.type(screen.getByLabelText('Password'), 'lathe-and-lamp');
  await userEvent.type(screen.getByLabelText('Code of the second factor'), '123456');
  server.answer = () => refusal({ code: 'locked', problem: 'It is locked here for 15 minutes.' });
  await userEvent.click(screen.getByRole('button', { name: 'Go on here' }));
  expect(await screen.findByRole('alert')).toHaveTextContent('locked here for 15 minutes');
  expect(changes()).toEqual([
    { url: '/api/people/switch', body: { username: 'ada', secret: 'lathe-and-lamp', code: '123456' } },
  ]);
});
