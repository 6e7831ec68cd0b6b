import type { GasketPair } from '../../api/client';
import { PairView } from '../../drawing/PairView';
import { useTwoStacks, type OfTwo } from '../set/useTwoStacks';
import type { MeansParts } from './kinds';

export const GASKET_PAIR: MeansParts<'gasket_pair'> = {
  Picture: ({ job, setting, view }) => <PairView pair={view} gaps={setting.gaps} unit={job.unit} />,
  Notes: () => (
    <p className="quiet">
      Checked gear by gear before snap rings and lock ring are in: the shaft pushed to one end, an indicator
      at it, then pushed to the other.
    </p>
  ),
  byIndicator: true,
  useTry: (_setting, view, job) => useTwoStacks(job.slug, view.box, end(view, 0), end(view, 1)),
};

function end(view: GasketPair, i: number): OfTwo {
  const { name = '', now = [], next = [] } = view.ends[i] ?? {};
  return { legend: `Gaskets at the ${name}, as compressed`, now, next };
}
