import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { useSyncExternalStore } from 'react';
import { newId, type Problem } from '../api/client';

/** A change to a job that the server has not answered yet, or has asked about: kept on this device until it is settled. */
export interface Waiting {
  id: string;
  person: string;
  /** The page that sends it: another page of the same person leaves it alone while that one lives. */
  page: string;
  job: number;
  kind: string;
  /** What it is, in words. */
  said: string;
  change: object;
  how: object;
  /** The version of the job that was on screen. */
  version: number;
  order: number;
  /** What the server said against it; null while it waits for an answer. */
  problem: Problem | null;
}

interface Schema extends DBSchema {
  waiting: { key: string; value: Waiting };
}

const PAGE = newId();
let database: Promise<IDBPDatabase<Schema> | null> | null = null;
let entries: readonly Waiting[] = [];
let order = Date.now();
const listeners = new Set<() => void>();

/** The store on this device; null where there is none, as in a window that keeps nothing: then it waits in the page alone. */
function store(): Promise<IDBPDatabase<Schema> | null> {
  database ??= open().catch(() => null);
  return database;
}

// As a promise from its first line: where there is no IndexedDB at all, the call itself throws.
async function open(): Promise<IDBPDatabase<Schema>> {
  return openDB<Schema>('fine-gap', 1, {
    upgrade: (db) => void db.createObjectStore('waiting', { keyPath: 'id' }),
  });
}

function set(next: readonly Waiting[]) {
  entries = next;
  listeners.forEach((tell) => tell());
}

/** Keep a change from the moment of its press. One with the same identity replaces it, in its place. */
export async function keep(entry: Omit<Waiting, 'page' | 'order' | 'problem'>): Promise<void> {
  const before = entries.find((e) => e.id === entry.id);
  const kept = { ...entry, page: PAGE, order: before?.order ?? order++, problem: null };
  set([...entries.filter((e) => e.id !== entry.id), kept].sort((a, b) => a.order - b.order));
  await (await store())?.put('waiting', kept);
}

/** The server asks about it, or refuses it: it stays until it is said, or given up. */
export async function ask(id: string, problem: Problem): Promise<void> {
  const asked = entries.find((e) => e.id === id);
  if (!asked) return;
  const kept = { ...asked, problem };
  set(entries.map((e) => (e.id === id ? kept : e)));
  await (await store())?.put('waiting', kept);
}

/** It is saved, or given up. */
export async function settle(id: string): Promise<void> {
  set(entries.filter((e) => e.id !== id));
  await (await store())?.delete('waiting', id);
}

/** Hold a lock as long as this page lives, so that another knows whose entries are still being sent. */
function live(): void {
  // Where the page is not served over TLS there are no locks; what was left there is taken over at the next load.
  if ('locks' in navigator) void navigator.locks.request(`page-${PAGE}`, () => new Promise(() => undefined));
}

async function pagesAlive(): Promise<Set<string>> {
  if (!('locks' in navigator)) return new Set();
  const { held = [] } = await navigator.locks.query();
  return new Set(held.map((lock) => lock.name?.replace('page-', '') ?? ''));
}

/** What a person left waiting on this device, in its order, taken over by this page. */
export async function takeOver(person: string): Promise<Waiting[]> {
  live();
  const db = await store();
  const alive = await pagesAlive();
  const all = (await db?.getAll('waiting')) ?? [];
  const left = all.filter((e) => e.person === person && e.page !== PAGE && !alive.has(e.page));
  const mine = left.map((e) => ({ ...e, page: PAGE })).sort((a, b) => a.order - b.order);
  for (const entry of mine) await db?.put('waiting', entry);
  set([...mine, ...entries].sort((a, b) => a.order - b.order));
  return mine;
}

/** Everything that waits on this page. */
export function useWaiting(): readonly Waiting[] {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => entries,
  );
}

/** Whether anything waits; for a page about to be left. */
export const isAnythingWaiting = () => entries.length > 0;

/** For tests: as after the page was closed, its store kept. */
export function closePage(): void {
  set([]);
}
