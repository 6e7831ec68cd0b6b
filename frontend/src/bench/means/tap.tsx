import { useState } from 'react';
import { TapView } from '../../drawing/TapView';
import { standing } from '../job/standing';
import type { MeansParts } from './kinds';

export const TAP: MeansParts<'tap'> = {
  Picture: ({ job, setting, view }) => <TapView tap={view} gaps={setting.gaps} unit={job.unit} />,
  Notes: () => (
    <p className="quiet">
      Leaves through a port, between rotor and face, on both sides. The drift goes on the shaft, never the
      hammer itself.
    </p>
  ),
  useTry: (setting, view) => {
    const [end, setEnd] = useState(view.end ? `${view.end} end` : '');
    // As it comes from the press nothing was tapped yet.
    const isFirst = standing(setting).length === 0;
    return {
      beside: !isFirst && (
        <label className="field">
          The shaft was tapped, by a drift, on its
          <select value={end} onChange={(e) => setEnd(e.target.value)}>
            <option value="front end">front end</option>
            <option value="back end">back end</option>
            <option value="">neither: only checked again</option>
          </select>
        </label>
      ),
      moved: '',
      way: isFirst ? '' : end,
      stacks_um: [],
      isChanged: false,
    };
  },
};
