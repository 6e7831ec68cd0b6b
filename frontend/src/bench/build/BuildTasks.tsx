import type { Job } from '../../api/client';
import type { BuildPage } from './buildPages';
import { Sizes } from '../tasks/Sizes';
import { Task } from '../tasks/Task';

/** What a step that puts parts in is done with, and what is measured there as fitted. */
export function BuildTasks({ job, page }: { job: Job; page: BuildPage }) {
  return (
    <>
      {page.tasks.map((task) => (
        <Task key={task} job={job} task={task} step={page.key} />
      ))}
      {page.features.length > 0 && <Sizes job={job} features={page.features} />}
    </>
  );
}
