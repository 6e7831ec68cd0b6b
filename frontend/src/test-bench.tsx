import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, vi } from 'vitest';
import type { Job, Unit } from './api/client';
import { KeyProvider } from './app/keys';
import { closePage } from './app/outbox';
import { UnitProvider } from './app/unit';
import { WorksContext, type Works } from './app/works';

/** A request as it left the screen. */
export interface Sent {
  url: string;
  body: Record<string, unknown>;
}

/** A server for tests: what it was sent, and what it answers. */
export function stubServer(usual: () => Response) {
  const server = { sent: [] as Sent[], answer: usual };
  beforeEach(() => {
    localStorage.clear();
    closePage();
    server.sent.length = 0;
    server.answer = usual;
    vi.stubGlobal('fetch', async (request: Request) => {
      // Who is at the page is asked by many a screen, and is no part of what is tested.
      if (request.url.endsWith('/api/me'))
        return Response.json({ username: 'ines', name: 'Ines', role: 'technician' });
      const text = request.method === 'GET' ? '' : await request.text();
      const body = JSON.parse(text || '{}') as Record<string, unknown>;
      server.sent.push({ url: request.url, body });
      return server.answer();
    });
  });
  afterEach(() => vi.unstubAllGlobals());
  return server;
}

/** What every job has, where a test does not care. */
const EMPTY: Partial<Job> = { features: [], steps: [] };

/** What the server says is wrong. */
export function refusal(more: object): Response {
  const problem = { code: 'field', field: '', problem: '', hint: '', suggestions: [], reasons: [] };
  return Response.json({ ...problem, ...more }, { status: 422 });
}

/** A works that writes a point, with Ines at the page. */
export const TEST_WORKS: Works = {
  mark: 'point',
  person: 'ines',
  signs: {
    length: { mm: 'mm', in: 'in', thou: 'thou' },
    torque: { mm: 'N·m', in: 'lbf·ft', thou: 'lbf·ft' },
    temperature: { mm: '°C', in: '°F', thou: '°F' },
    viscosity: { mm: 'mm²/s', in: 'mm²/s', thou: 'mm²/s' },
    pressure: { mm: 'bar', in: 'psi', thou: 'psi' },
    flow: { mm: 'L/min', in: 'US gal/min', thou: 'US gal/min' },
    volume: { mm: 'L', in: 'US gal', thou: 'US gal' },
    power: { mm: 'kW', in: 'hp', thou: 'hp' },
    mass: { mm: 'g', in: 'oz', thou: 'oz' },
    speed: { mm: 'r/min', in: 'r/min', thou: 'r/min' },
    density: { mm: 'kg/m³', in: 'kg/m³', thou: 'kg/m³' },
  },
};

/** On the bench of a job, as the application shows it; with the job as it was last seen in one unit or both. */
export function showOnBench(children: ReactNode, ...jobs: Job[]) {
  const client = new QueryClient({
    defaultOptions: { queries: { retry: false }, mutations: { retry: false } },
  });
  for (const job of jobs) client.setQueryData(['job', job.number, job.unit], { ...EMPTY, ...job });
  const shown = render(
    <QueryClientProvider client={client}>
      <UnitProvider>
        <MemoryRouter>
          <WorksContext.Provider value={TEST_WORKS}>
            <KeyProvider>{children}</KeyProvider>
          </WorksContext.Provider>
        </MemoryRouter>
      </UnitProvider>
    </QueryClientProvider>,
  );
  const kept = (number: number, unit: Unit) => client.getQueryData<Job>(['job', number, unit]);
  return { ...shown, kept };
}
