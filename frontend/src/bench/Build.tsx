import type { Feature, Job, Step } from '../api/client';
import { pageName, StageWorks, type Page } from './StageWorks';
import { Sizes } from './works/Sizes';
import { Work } from './works/Work';

/** Putting it together: the steps on the left, what the one in hand is done with on the right. */
export function Build({ job }: { job: Job }) {
  const pages = pagesOf(
    job,
    job.steps.filter((s) => s.stage === 'build'),
  );
  return (
    <StageWorks
      job={job}
      stage="build"
      pages={pages}
      show={(page) => (
        <>
          {page.works.map((work) => (
            <Work key={work} job={job} work={work} />
          ))}
          {page.features.length > 0 && <Sizes job={job} features={page.features} />}
        </>
      )}
    />
  );
}

interface BuildPage extends Page {
  works: string[];
  features: Feature[];
}

/** A page for each step that is done with something; what was fitted and no step measures has one of its own, where anything is fitted. */
function pagesOf(job: Job, steps: Step[]): BuildPage[] {
  const byKey = new Map(job.features.map((f) => [f.key, f]));
  const found = (keys: string[]) => keys.map((k) => byKey.get(k)).filter((f) => f !== undefined);
  const pages = steps
    .filter((s) => s.works.length || s.measures.length)
    .map((s) => ({
      key: s.key,
      name: pageName(s.text),
      works: s.works,
      features: found([...pressed(job, s), ...s.measures]),
    }));
  const there = new Set(pages.flatMap((p) => p.features.map((f) => f.key)));
  const changed = job.features.filter((f) => f.to_confirm || f.decision?.decided === 'change');
  const rest = changed.filter((f) => !f.parts.length && !there.has(f.key));
  return rest.length && steps.length
    ? [...pages, { key: 'rest', name: 'What else is new: measured or confirmed', works: [], features: rest }]
    : pages;
}

function pressed(job: Job, step: Step): string[] {
  return job.building.presses.filter((p) => step.works.includes(`press:${p.key}`)).flatMap((p) => p.features);
}
