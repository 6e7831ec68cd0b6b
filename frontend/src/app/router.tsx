import type { ComponentType } from 'react';
import { createBrowserRouter, Navigate } from 'react-router';
import { Waits } from '../bench/job/Waits';
import { SomebodyElse } from '../people/SomebodyElse';
import { Shell } from './Shell';

type Load = () => Promise<ComponentType>;

/** A page whose code is fetched when it is gone to. */
const page = (path: string, load: Load) => ({ path, lazy: async () => ({ Component: await load() }) });

const jobList: Load = async () => (await import('../bench/job/JobList')).JobList;
const jobPage: Load = async () => (await import('../bench/job/JobPage')).JobPage;

export const router = createBrowserRouter([
  {
    element: <Shell notes={<Waits />} somebodyElse={<SomebodyElse />} />,
    HydrateFallback: () => null,
    errorElement: (
      <div className="blank page" role="alert">
        This page could not be shown. What was saved is safe. <a href="/bench">Back to the bench</a>
      </div>
    ),
    children: [
      { path: '/', element: <Navigate to="/bench" replace /> },
      page('/bench', jobList),
      page('/bench/:number/:stage?', jobPage),
      page('/fleet', async () => (await import('../fleet/Fleet')).Fleet),
      page('/fleet/due', async () => (await import('../fleet/DuePage')).DuePage),
      page('/fleet/labels', async () => (await import('../fleet/Labels')).Labels),
      page('/fleet/scan', async () => (await import('../fleet/Scan')).Scan),
      page('/p/:code', async () => (await import('../fleet/LabelPage')).LabelPage),
      page('/fleet/:tag', async () => (await import('../fleet/PumpPage')).PumpPage),
      page('/sheets', async () => (await import('../sheets/Sheets')).Sheets),
      page('/sheets/procedures/:family', async () => (await import('../sheets/ProcedurePage')).ProcedurePage),
      page('/sheets/typing/:id', async () => (await import('../sheets/typing/TypeSheet')).TypeSheet),
      page('/sheets/:slug/:revision/reading', async () => (await import('../sheets/ReadSheet')).ReadSheet),
      page(
        '/sheets/:slug/:revision/against/:other',
        async () => (await import('../sheets/CompareSheets')).CompareSheets,
      ),
      page('/sheets/:slug/:revision', async () => (await import('../sheets/SheetPage')).SheetPage),
      page('/toolbox', async () => (await import('../toolbox/Toolbox')).Toolbox),
      page('/me', async () => (await import('../people/MePage')).MePage),
      page('/toolbox/settings', async () => (await import('../toolbox/SettingsPage')).SettingsPage),
      page('/toolbox/backups', async () => (await import('../toolbox/BackupsPage')).BackupsPage),
      page('/toolbox/changes', async () => (await import('../toolbox/ChangesPage')).ChangesPage),
      page('/toolbox/sums/:key?', async () => (await import('../toolbox/Sums')).Sums),
      {
        path: '*',
        element: <div className="blank">There is no such page. The places are in the strip above.</div>,
      },
    ],
  },
]);

/** The bench is gone to and fro without the server, too: its code is there before it is wanted. */
export function fetchBench(): void {
  void Promise.allSettled([jobList(), jobPage()]);
}
