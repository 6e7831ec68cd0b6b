import { FlankView } from '../../drawing/FlankView';
import { standing } from '../job/standing';
import type { MeansParts } from './kinds';
import { useTurned } from './useTurned';

export const HELIX: MeansParts<'helix'> = {
  Picture: ({ job, setting, view }) => <FlankView helix={view} gaps={setting.gaps} unit={job.unit} />,
  // With its case shut nothing turns the gear; and at the first look nothing was turned yet.
  useTry: (setting, view) => useTurned(view, !view.shut && standing(setting).length > 0),
};
