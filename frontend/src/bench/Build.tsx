import { useEffect, useRef, useState } from 'react';
import type { Feature, Job, Step } from '../api/client';
import { useKeys } from '../app/keys';
import { Steps } from './Steps';
import { GreaseWork } from './works/GreaseWork';
import { PackingWork } from './works/PackingWork';
import { PictureWork } from './works/PictureWork';
import { PressWork } from './works/PressWork';
import { Sizes } from './works/Sizes';
import { StackWork } from './works/StackWork';
import { TorqueWork } from './works/TorqueWork';

/** Putting it together: the steps on the left, what the one in hand is done with on the right. */
export function Build({ job }: { job: Job }) {
  const steps = job.steps.filter((s) => s.stage === 'build');
  const present = steps.find((s) => s.by === null)?.key ?? '';
  const pages = pagesOf(job, steps);
  const [chosen, setChosen] = useState({ page: '', at: present });
  // Another page can be looked at; when the steps go on, the page goes with them.
  const wanted = chosen.page && chosen.at === present ? chosen.page : present || pages[0]?.key;
  const index = pages.findIndex((p) => p.key === wanted);
  const page = pages[index];
  const move = (by: number) => {
    const from = index >= 0 ? index : by > 0 ? -1 : 0;
    const next = pages[(from + by + pages.length) % pages.length];
    if (next) setChosen({ page: next.key, at: present });
  };
  const shown = useRef(page?.key);
  useEffect(() => {
    // Another page begins at its top.
    if (shown.current !== page?.key) document.querySelector('main')?.scrollTo({ top: 0 });
    shown.current = page?.key;
  }, [page?.key]);
  useKeys([
    { key: 'ArrowUp', label: '', run: () => move(-1) },
    { key: 'ArrowDown', show: '↑ ↓', label: 'work', run: () => move(1) },
  ]);
  return (
    <div className="stage build-columns">
      <Steps job={job} stage="build" />
      <section aria-label="Work in hand">
        <div className="page-picker">
          <button type="button" className="tool" aria-label="Work before" onClick={() => move(-1)}>
            ◂
          </button>
          <select
            aria-label="Work in hand"
            value={page?.key ?? ''}
            onChange={(event) => setChosen({ page: event.target.value, at: present })}
          >
            {!page && <option value="">Nothing to reckon or to log at this step</option>}
            {pages.map((p) => (
              <option key={p.key} value={p.key}>
                {p.name}
                {p.key === present ? ' (this step)' : ''}
              </option>
            ))}
          </select>
          <button type="button" className="tool" aria-label="Next work" onClick={() => move(1)}>
            ▸
          </button>
        </div>
        {page ? (
          <Work key={page.key} job={job} page={page} />
        ) : (
          <p className="quiet">
            This step needs nothing but its words. The arrows show the work of the others.
          </p>
        )}
      </section>
    </div>
  );
}

interface Page {
  key: string;
  name: string;
  works: string[];
  features: Feature[];
}

/** A page for each step that is done with something; what was fitted and no step measures has one of its own. */
function pagesOf(job: Job, steps: Step[]): Page[] {
  const byKey = new Map(job.features.map((f) => [f.key, f]));
  const found = (keys: string[]) => keys.map((k) => byKey.get(k)).filter((f) => f !== undefined);
  const pages = steps
    .filter((s) => s.works.length || s.measures.length)
    .map((s) => ({
      key: s.key,
      name: s.text.split(/[;,.]/, 1)[0] ?? s.text,
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

function Work({ job, page }: { job: Job; page: Page }) {
  const { stacks, presses, tightenings, pictures, packing } = job.building;
  return (
    <div className="works">
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
    </div>
  );
}
