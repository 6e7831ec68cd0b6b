import { MeshView } from '../../drawing/MeshView';
import { standing } from '../job/standing';
import type { MeansParts } from './kinds';
import { useTurned } from './useTurned';

export const TIMING: MeansParts<'timing'> = {
  Picture: ({ job, setting, view }) => <MeshView timing={view} gaps={setting.gaps} unit={job.unit} />,
  // At the first look nothing was turned yet.
  useTry: (setting, view) => useTurned(view, standing(setting).length > 0),
};
