import { expect, test } from 'vitest';
import { ApiError, newId, Unreachable, unwrap } from './client';

const response = new Response();

test('an identity is a version 4 UUID and never the same', () => {
  const ids = Array.from({ length: 200 }, newId);
  expect(new Set(ids).size).toBe(200);
  for (const id of ids)
    expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
});

test('an answer is its data, a problem, or no answer at all', async () => {
  await expect(unwrap(Promise.resolve({ data: 1, response }))).resolves.toBe(1);
  await expect(unwrap(Promise.reject(new TypeError('network')))).rejects.toBeInstanceOf(Unreachable);
  const error = {
    code: 'field',
    problem: 'it is not a length.',
    field: 'bore',
    hint: '',
    suggestions: [],
    reasons: [],
  };
  await expect(unwrap(Promise.resolve({ error, response }))).rejects.toMatchObject({ details: error });
  await expect(unwrap(Promise.resolve({ error: '<html>', response }))).rejects.toBeInstanceOf(ApiError);
});
