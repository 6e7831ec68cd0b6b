import { useState } from 'react';
import { useDraft } from '../../app/unit';
import { MeshView } from '../../drawing/MeshView';
import { standing } from '../job/standing';
import { Arc } from './Arc';
import type { MeansParts } from './kinds';

export const TIMING: MeansParts<'timing'> = {
  Picture: ({ job, setting, view }) => <MeshView timing={view} gaps={setting.gaps} unit={job.unit} />,
  useTry: (setting, view) => {
    const [arc, setArc] = useDraft(view.toward ? view.arc : '0');
    const [toward, setToward] = useState(view.toward || 'left');
    // At the first look nothing was turned yet.
    const isFirst = standing(setting).length === 0;
    return {
      beside: !isFirst && (
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
