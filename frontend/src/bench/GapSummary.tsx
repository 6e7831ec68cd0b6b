import type { Job } from '../api/client';
import { WorkingLink } from '../app/WorkingLink';
import { GapBar } from '../drawing/GapBar';

/** The gap as last checked, against its window, cold and hot. */
export function GapSummary({ job }: { job: Job }) {
  const setting = job.setting;
  if (!setting) return <p className="problem">{job.choice.sentence}</p>;
  const last = setting.tries.at(-1);
  return (
    <>
      <p className="big-number">{last ? `${last.gap} ${job.unit}` : 'not set yet'}</p>
      <GapBar
        faces={setting.faces}
        low={{ mm: setting.low_mm, text: setting.low }}
        high={{ mm: setting.high_mm, text: setting.high }}
        targetMm={setting.target_mm}
        measured={last ? { mm: last.gap_mm, expandedMm: last.expanded_mm, text: last.gap } : null}
      />
      {setting.hot && (
        <p className={setting.hot.touches ? 'problem' : ''}>
          Predicted hot: <b>{setting.hot.text}</b>
          {setting.hot.touches && `. ${setting.hot.sentence}`} <WorkingLink working={setting.hot.working} />
        </p>
      )}
    </>
  );
}
