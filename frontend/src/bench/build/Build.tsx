import { Link } from 'react-router';
import type { Job } from '../../api/client';
import { BuildTasks } from './BuildTasks';
import { pagesOf, restOf } from './buildPages';
import { StageTasks } from '../steps/StageTasks';

/** Putting it together: the steps on the left, what the one in hand is done with on the right. */
export function Build({ job }: { job: Job }) {
  const steps = job.steps.filter((s) => s.stage === 'build');
  if (!steps.length && job.steps.some((s) => s.reopened)) {
    return (
      <div className="stage">
        <p className="lead">Setting the gap opened all of it: what was put together is done again at Set.</p>
        <Link to={`/bench/${job.number}/set`}>To Set</Link>
      </div>
    );
  }
  const pages = pagesOf(job, steps);
  return (
    <StageTasks
      job={job}
      stage="build"
      pages={steps.length ? [...pages, ...restOf(job)] : pages}
      show={(page) => <BuildTasks job={job} page={page} />}
    />
  );
}
