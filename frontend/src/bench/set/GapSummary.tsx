import type { Job, Setting } from '../../api/client';
import { WorkingLink } from '../../app/WorkingLink';
import { capital } from '../../app/words';
import { GapBar } from '../../drawing/GapBar';
import { Gaps } from './Gaps';
import { standing } from '../job/standing';

/** What the pump was set to, by one name: one gap under its own, several as gaps. */
// eslint-disable-next-line react-refresh/only-export-components -- a name belongs beside what it names
export function gapName(job: Job): string {
  return job.setting && job.setting.gaps.length === 1 ? capital(job.setting.name) : 'Gaps';
}

/** The gap as last checked, against its window, cold and hot; with several gaps, every one. */
export function GapSummary({ job }: { job: Job }) {
  const { setting, mesh } = job;
  if (!setting)
    return job.choice.target ? (
      <p className="lead">Nothing is set in this job.</p>
    ) : (
      <p className="problem">{job.choice.sentence}</p>
    );
  if (setting.gaps.length === 1) return <OneGap job={job} setting={setting} />;
  return (
    <>
      <Gaps gaps={[...setting.gaps, ...(mesh?.gaps ?? [])]} unit={job.unit} />
      <Hot setting={setting} />
    </>
  );
}

function OneGap({ job, setting }: { job: Job; setting: Setting }) {
  const last = standing(setting).at(-1);
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
      <Hot setting={setting} />
    </>
  );
}

function Hot({ setting }: { setting: Setting }) {
  if (!setting.hot) return null;
  return (
    <p className={setting.hot.touches ? 'problem' : ''}>
      Predicted hot: <b>{setting.hot.text}</b>
      {setting.hot.touches && `. ${setting.hot.sentence}`} <WorkingLink working={setting.hot.working} />
    </p>
  );
}
