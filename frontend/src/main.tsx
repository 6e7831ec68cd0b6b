import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router/dom';
import '@fontsource-variable/source-sans-3/index.css';
import '@fontsource/noto-sans-math/index.css';
import './styles/bootstrap.scss';
import './styles/base.css';
import './styles/bench.css';
import './styles/build.css';
import './styles/set.css';
import './styles/prove.css';
import './styles/drawing.css';
import './styles/narrow.css';
import { Unreachable } from './api/client';
import { fetchBench, router } from './app/router';
import { UnitProvider } from './app/unit';

/** Between two tries while the server does not answer. */
const LONGEST_MS = 10_000;

const queryClient = new QueryClient({
  defaultOptions: {
    queries: { staleTime: 5_000, retry: (count, error) => error instanceof Unreachable && count < 3 },
    // A lost answer is asked for again with the same identity, however long the outage: the record is made once.
    mutations: {
      retry: (_, error) => error instanceof Unreachable,
      retryDelay: (count) => Math.min(1_000 * 2 ** count, LONGEST_MS),
      networkMode: 'always',
    },
  },
});

window.addEventListener('load', fetchBench);

const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queryClient}>
        <UnitProvider>
          <RouterProvider router={router} />
        </UnitProvider>
      </QueryClientProvider>
    </StrictMode>,
  );
}
