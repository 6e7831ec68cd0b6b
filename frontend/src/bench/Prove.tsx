import type { Job } from '../api/client';
import { capital } from '../app/words';
import { GapSummary } from './GapSummary';
import { pageName, StageWorks } from './StageWorks';
import { EndPlayWork } from './works/EndPlayWork';
import { FirstHourWork } from './works/FirstHourWork';
import { RunInWork } from './works/RunInWork';
import { TurningWork } from './works/TurningWork';

const WORKS: Record<string, (props: { job: Job }) => React.ReactNode> = {
  turning: TurningWork,
  'end-play': EndPlayWork,
  'run-in': RunInWork,
  'first-hour': FirstHourWork,
};

/** Before power: it turns freely by hand. Then guards, rotation, running in, and the first hour. */
export function Prove({ job }: { job: Job }) {
  const pages = job.steps
    .filter((s) => s.stage === 'prove' && s.works.some((work) => work in WORKS))
    .map((s) => ({ key: s.key, name: pageName(s.text), works: s.works }));
  return (
    <StageWorks
      job={job}
      stage="prove"
      pages={pages}
      above={
        <details className="as-set" open={pages.length === 0}>
          <summary>
            {capital(job.setting?.name ?? 'gap')} as set:{' '}
            <b>{job.setting?.tries.at(-1)?.gap ?? 'not set yet'}</b>{' '}
            {job.setting?.tries.length ? job.unit : ''}
          </summary>
          <GapSummary job={job} />
        </details>
      }
      show={(page) =>
        page.works.map((work) => {
          const Work = WORKS[work];
          return Work ? <Work key={work} job={job} /> : null;
        })
      }
    />
  );
}
