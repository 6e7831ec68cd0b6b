import { lazy, Suspense } from 'react';
import { createBrowserRouter, Navigate } from 'react-router';
import { JobList } from '../bench/job/JobList';
import { JobPage } from '../bench/job/JobPage';
import { Waits } from '../bench/job/Waits';
import { Shell } from './Shell';

/* eslint-disable react-refresh/only-export-components -- the one table of pages */
const Fleet = lazy(() => import('../fleet/Fleet').then((m) => ({ default: m.Fleet })));
const PumpPage = lazy(() => import('../fleet/PumpPage').then((m) => ({ default: m.PumpPage })));
const Sheets = lazy(() => import('../sheets/Sheets').then((m) => ({ default: m.Sheets })));
const SheetPage = lazy(() => import('../sheets/SheetPage').then((m) => ({ default: m.SheetPage })));
const ProcedurePage = lazy(() =>
  import('../sheets/ProcedurePage').then((m) => ({ default: m.ProcedurePage })),
);
const Sums = lazy(() => import('../toolbox/Sums').then((m) => ({ default: m.Sums })));
const SettingsPage = lazy(() => import('../toolbox/SettingsPage').then((m) => ({ default: m.SettingsPage })));
const MePage = lazy(() => import('../people/MePage').then((m) => ({ default: m.MePage })));
const Toolbox = lazy(() => import('../toolbox/Toolbox').then((m) => ({ default: m.Toolbox })));

export const router = createBrowserRouter([
  {
    element: <Shell notes={<Waits />} />,
    errorElement: (
      <div className="blank page" role="alert">
        This page could not be shown. What was saved is safe. <a href="/bench">Back to the bench</a>
      </div>
    ),
    children: [
      { path: '/', element: <Navigate to="/bench" replace /> },
      { path: '/bench', element: <JobList /> },
      { path: '/bench/:number/:stage?', element: <JobPage /> },
      {
        path: '/fleet',
        element: (
          <Suspense>
            <Fleet />
          </Suspense>
        ),
      },
      {
        path: '/fleet/:tag',
        element: (
          <Suspense>
            <PumpPage />
          </Suspense>
        ),
      },
      {
        path: '/sheets',
        element: (
          <Suspense>
            <Sheets />
          </Suspense>
        ),
      },
      {
        path: '/sheets/procedures/:family',
        element: (
          <Suspense>
            <ProcedurePage />
          </Suspense>
        ),
      },
      {
        path: '/sheets/:slug/:revision',
        element: (
          <Suspense>
            <SheetPage />
          </Suspense>
        ),
      },
      {
        path: '/toolbox',
        element: (
          <Suspense>
            <Toolbox />
          </Suspense>
        ),
      },
      {
        path: '/me',
        element: (
          <Suspense>
            <MePage />
          </Suspense>
        ),
      },
      {
        path: '/toolbox/settings',
        element: (
          <Suspense>
            <SettingsPage />
          </Suspense>
        ),
      },
      {
        path: '/toolbox/sums/:key?',
        element: (
          <Suspense>
            <Sums />
          </Suspense>
        ),
      },
      {
        path: '*',
        element: <div className="blank">There is no such page. The places are in the strip above.</div>,
      },
    ],
  },
]);
