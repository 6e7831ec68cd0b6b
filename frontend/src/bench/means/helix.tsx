import { useState } from 'react';
import { useDraft } from '../../app/unit';
import { FlankView } from '../../drawing/FlankView';
import { standing } from '../job/standing';
import { Arc } from './Arc';
import { NOTHING_TYPED, type MeansParts } from './kinds';

export const HELIX: MeansParts<'helix'> = {
  Picture: ({ job, setting, view }) => <FlankView helix={view} gaps={setting.gaps} unit={job.unit} />,
  useTry: (setting, view) => {
    const [arc, setArc] = useDraft(view.toward ? view.arc : '0');
    const [toward, setToward] = useState(view.toward || 'left');
    // With its case shut nothing turns the gear; and at the first look nothing was turned yet.
    if (view.shut || standing(setting).length === 0) return { ...NOTHING_TYPED, moved: '0' };
    return {
      beside: (
        <>
          <Arc label="Turned by, along the marks" value={arc} onChange={setArc} />
          <label className="field short">
            towards the
            <select value={toward} onChange={(e) => setToward(e.target.value)}>
              <option value="left">left</option>
              <option value="right">right</option>
            </select>
          </label>
        </>
      ),
      moved: arc,
      way: toward,
      stacks_um: [],
      // Turned, it was released: what clamps it is to be done again.
      isChanged: /[1-9]/.test(arc),
    };
  },
};
