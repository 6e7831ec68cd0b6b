import type { Shims } from '../../api/client';
import { ShimView } from '../../drawing/ShimView';
import { useTwoStacks, type OfTwo } from '../set/useTwoStacks';
import type { MeansParts } from './kinds';

export const SHIMS: MeansParts<'shims'> = {
  Picture: ({ job, setting, view }) => <ShimView shims={view} gaps={setting.gaps} unit={job.unit} />,
  useTry: (_setting, view, job) => useTwoStacks(job.slug, view.box, shaft(view, 0), shaft(view, 1)),
};

function shaft(view: Shims, i: number): OfTwo {
  const { name = '', now = [], next = [] } = view.shafts[i] ?? {};
  return { legend: `Shims of the ${name}`, now, next };
}
