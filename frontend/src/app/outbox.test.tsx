import { QueryClient } from '@tanstack/react-query';
import { renderHook, waitFor } from '@testing-library/react';
import { beforeEach, expect, test, vi } from 'vitest';
import { resend, type How } from '../bench/job/useJob';
import { ask, closePage, keep, settle, takeOver, useWaiting } from './outbox';

const HOW: How = { unit: 'in', mark: 'comma', person: 'ines', meant: false, at: '2026-03-31T14:05:00+02:00' };

function entry(id: string, more: object = {}) {
  return {
    id,
    person: 'ines',
    job: 5,
    kind: 'readings',
    said: id,
    change: { id },
    how: HOW,
    version: 3,
    ...more,
  };
}

const kept = () => renderHook(() => useWaiting()).result.current.map((w) => w.id);

beforeEach(async () => {
  vi.unstubAllGlobals();
  // What a test before left in the store goes with its page.
  for (const person of ['ines', 'otto']) for (const w of await takeOver(person)) await settle(w.id);
  closePage();
});

/** The page is closed and another opened: as its tab has died, nobody holds its lock. */
async function reload() {
  vi.resetModules();
  return import('./outbox');
}

test('what waits is there after the page was closed, in its order, with how it was typed', async () => {
  await keep(entry('first'));
  await keep(entry('second', { version: 4 }));
  await keep(entry('third'));
  await settle('second');
  const next = await reload();
  const left = await next.takeOver('ines');
  expect(left.map((w) => w.id)).toEqual(['first', 'third']);
  expect(left[0]).toMatchObject({ how: HOW, version: 3, change: { id: 'first' } });
});

test('each person has a queue of their own', async () => {
  await keep(entry('mine'));
  await keep(entry('his', { person: 'otto' }));
  const next = await reload();
  expect((await next.takeOver('otto')).map((w) => w.id)).toEqual(['his']);
  expect((await next.takeOver('ines')).map((w) => w.id)).toEqual(['mine']);
});

test('one put in again keeps its place, and a question stays with it', async () => {
  await keep(entry('a'));
  await keep(entry('b'));
  await keep(entry('a', { said: 'meant' }));
  expect(kept()).toEqual(['a', 'b']);
  await ask('b', {
    code: 'unlikely',
    problem: 'Is it?',
    field: '',
    hint: '',
    suggestions: [],
    reasons: [],
    reason_wanted: false,
  });
  const next = await reload();
  const left = await next.takeOver('ines');
  expect(left.map((w) => w.problem?.problem ?? '')).toEqual(['', 'Is it?']);
});

test('what another living page sends is left to it', async () => {
  await keep(entry('theirs'));
  const next = await reload();
  const page = (await next.takeOver('ines'))[0]?.page ?? '';
  vi.stubGlobal('navigator', {
    locks: {
      request: () => new Promise(() => undefined),
      query: () => Promise.resolve({ held: [{ name: `page-${page}` }] }),
    },
  });
  const third = await reload();
  expect(await third.takeOver('ines')).toEqual([]);
});

test('sent again in order, one after another, each once; what is refused stays with its reason', async () => {
  const sent: string[] = [];
  let answering = 0;
  vi.stubGlobal('fetch', async (request: Request) => {
    const body = (await request.json()) as { id: string; version: number; unit: string };
    expect(++answering).toBe(1); // never two at once
    sent.push(body.id);
    await new Promise((later) => setTimeout(later, 20));
    answering--;
    const refusal = {
      code: 'conflict',
      problem: 'Somebody else changed this.',
      field: '',
      hint: '',
      suggestions: [],
      reasons: ['Otto: 30.05'],
      reason_wanted: false,
    };
    return body.id === 'b'
      ? Response.json(refusal, { status: 409 })
      : Response.json({ number: 5, version: 9, unit: body.unit });
  });
  const cache = new QueryClient({ defaultOptions: { mutations: { retry: false } } });
  for (const id of ['a', 'b', 'c']) await keep(entry(id));
  const again = (id: string) => resend(cache, 5, 'readings', { id, change: { id }, how: HOW, version: 3 });
  await Promise.all(['a', 'b', 'c'].map(again));
  expect(sent).toEqual(['a', 'b', 'c']);
  await waitFor(() => expect(kept()).toEqual(['b']));
  const waiting = renderHook(() => useWaiting()).result.current;
  expect(waiting[0]?.problem?.reasons).toEqual(['Otto: 30.05']);
});

test('while the server does not answer it stays, and goes when it does', async () => {
  let down = true;
  vi.stubGlobal('fetch', () =>
    down
      ? Promise.reject(new TypeError('down'))
      : Promise.resolve(Response.json({ number: 5, version: 4, unit: 'in' })),
  );
  const cache = new QueryClient({
    defaultOptions: { mutations: { retry: true, retryDelay: 10, networkMode: 'always' } },
  });
  await keep(entry('a'));
  const done = resend(cache, 5, 'readings', { id: 'a', change: { id: 'a' }, how: HOW, version: 3 });
  await new Promise((later) => setTimeout(later, 100));
  expect(kept()).toEqual(['a']);
  down = false;
  await done;
  expect(kept()).toEqual([]);
});
