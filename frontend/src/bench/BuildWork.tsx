import type { Job } from '../api/client';
import type { BuildPage } from './buildPages';
import { Sizes } from './works/Sizes';
import { Work } from './works/Work';

/** What a step that puts parts in is done with, and what is measured there as fitted. */
export function BuildWork({ job, page }: { job: Job; page: BuildPage }) {
  return (
    <>
      {page.tasks.map((task) => (
        <Work key={task} job={job} task={task} step={page.key} />
      ))}
      {page.features.length > 0 && <Sizes job={job} features={page.features} />}
    </>
  );
}
