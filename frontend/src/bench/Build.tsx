import type { Job } from '../api/client';
import { BuildWork } from './BuildWork';
import { pagesOf, restOf } from './buildPages';
import { StageWorks } from './StageWorks';

/** Putting it together: the steps on the left, what the one in hand is done with on the right. */
export function Build({ job }: { job: Job }) {
  const steps = job.steps.filter((s) => s.stage === 'build');
  const pages = pagesOf(job, steps);
  return (
    <StageWorks
      job={job}
      stage="build"
      pages={steps.length ? [...pages, ...restOf(job)] : pages}
      show={(page) => <BuildWork job={job} page={page} />}
    />
  );
}
