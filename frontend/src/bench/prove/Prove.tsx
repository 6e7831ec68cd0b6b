import type { Job } from '../../api/client';
import { gapName, GapSummary } from '../set/GapSummary';
import { pageName, StageTasks } from '../steps/StageTasks';
import { Task } from '../tasks/Task';
import { standing } from '../job/standing';

/** Before power: it turns freely by hand. Then guards, rotation, running in, and the first hour. */
export function Prove({ job }: { job: Job }) {
  const pages = job.steps
    .filter((s) => s.stage === 'prove' && s.tasks.length > 0)
    .map((s) => ({ key: s.key, name: pageName(s.text), tasks: s.tasks }));
  return (
    <StageTasks
      job={job}
      stage="prove"
      pages={pages}
      above={
        <details className="as-set" open={pages.length === 0}>
          <summary>
            {gapName(job)} as set: <b>{standing(job.setting).at(-1)?.gap ?? 'not set yet'}</b>{' '}
            {standing(job.setting).length ? job.unit : ''}
          </summary>
          <GapSummary job={job} />
        </details>
      }
      show={(page) => page.tasks.map((task) => <Task key={task} job={job} task={task} step={page.key} />)}
    />
  );
}
