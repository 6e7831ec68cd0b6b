import type { Setting } from '../../api/client';
import { useDraft } from '../../app/unit';
import { EndView } from '../../drawing/EndView';
import { FindZero } from '../set/FindZero';
import { Arc } from './Arc';
import { HousingNotes } from './HousingNotes';
import type { MeansParts, ViewOf } from './kinds';

type Housing = ViewOf<'housing'>;

export const HOUSING: MeansParts<'housing'> = {
  Picture: ({ job, view }) => (
    <EndView
      housing={view}
      unit={job.unit}
      turning={(view.zero_found || job.signed !== null) && view.target_deg !== view.position_deg}
    />
  ),
  Notes: HousingNotes,
  First: ({ job, view }) => <FindZero job={job} housing={view} />,
  isDue: (job, view) => !view.zero_found && !job.signed,
  useTry: (setting, view) => {
    const [arc, setArc] = useDraft(setting.way !== 'stay' && !setting.right ? view.arc : '0');
    return {
      beside: <Arc label={`Arc ${turned(setting, view)}`} value={arc} onChange={setArc} />,
      moved: arc,
      way: setting.way === 'close' ? 'close' : 'open',
      stacks_um: [],
      isChanged: false,
    };
  },
};

function turned({ way }: Setting, { hand }: Housing): string {
  return (hand === 'right') === (way === 'close') ? 'clockwise' : 'counterclockwise';
}
