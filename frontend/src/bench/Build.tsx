import type { Feature, Job, Step } from '../api/client';
import { pageName, StageWorks, type Page } from './StageWorks';
import { GreaseWork } from './works/GreaseWork';
import { PackingWork } from './works/PackingWork';
import { PictureWork } from './works/PictureWork';
import { PressWork } from './works/PressWork';
import { Sizes } from './works/Sizes';
import { StackWork } from './works/StackWork';
import { TorqueWork } from './works/TorqueWork';

/** Putting it together: the steps on the left, what the one in hand is done with on the right. */
export function Build({ job }: { job: Job }) {
  const pages = pagesOf(
    job,
    job.steps.filter((s) => s.stage === 'build'),
  );
  return <StageWorks job={job} stage="build" pages={pages} show={(page) => <Work job={job} page={page} />} />;
}

interface BuildPage extends Page {
  works: string[];
  features: Feature[];
}

/** A page for each step that is done with something; what was fitted and no step measures has one of its own. */
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
  const changed = job.features.filter((f) => f.decision?.decided === 'change');
  const parts = [...new Set(changed.flatMap((f) => (f.parts.length ? f.parts : [f.key])))];
  const rest = found(parts.filter((k) => !there.has(k)));
  return rest.length
    ? [...pages, { key: 'rest', name: 'What else was fitted: measured as left', works: [], features: rest }]
    : pages;
}

function pressed(job: Job, step: Step): string[] {
  return job.building.presses.filter((p) => step.works.includes(`press:${p.key}`)).flatMap((p) => p.features);
}

function Work({ job, page }: { job: Job; page: BuildPage }) {
  const { stacks, presses, tightenings, pictures, packing } = job.building;
  return (
    <>
      {page.works.map((work) => {
        const [kind = ''] = work.split(':', 1);
        const key = work.slice(kind.length + 1);
        const stack = stacks.find((s) => s.place === key);
        const press = presses.find((p) => p.key === key);
        const torque = tightenings.find((t) => t.key === key);
        const picture = pictures.find((p) => p.key === key);
        if (kind === 'stack' && stack) return <StackWork key={work} job={job} stack={stack} />;
        if (kind === 'press' && press) return <PressWork key={work} press={press} />;
        if (kind === 'torque' && torque) return <TorqueWork key={work} job={job} one={torque} />;
        if (kind === 'picture' && picture) return <PictureWork key={work} picture={picture} />;
        if (kind === 'packing' && packing) return <PackingWork key={work} packing={packing} />;
        return kind === 'grease' ? <GreaseWork key={work} job={job} /> : null;
      })}
      {page.features.length > 0 && <Sizes job={job} features={page.features} />}
    </>
  );
}
