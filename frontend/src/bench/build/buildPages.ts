import type { Feature, Job, Step } from '../../api/client';
import { pageName, type Page } from '../steps/StageTasks';

export interface BuildPage extends Page {
  tasks: string[];
  features: Feature[];
}

const featuresOf = (job: Job, keys: string[]) =>
  keys.map((key) => job.features.find((f) => f.key === key)).filter((f) => f !== undefined);

/** A page for each step that is done with something. */
export function pagesOf(job: Job, steps: Step[]): BuildPage[] {
  return steps
    .filter((s) => s.tasks.length || s.measures.length)
    .map((s) => ({
      key: s.key,
      name: pageName(s.text),
      tasks: s.tasks,
      features: featuresOf(job, [...pressed(job, s), ...s.measures]),
    }));
}

/** A page for what is new and no step measures. */
export function restOf(job: Job): BuildPage[] {
  const there = new Set(pagesOf(job, job.steps).flatMap((p) => p.features.map((f) => f.key)));
  const changed = job.features.filter((f) => f.to_confirm || f.decision?.decided === 'change');
  const rest = changed.filter((f) => !f.parts.length && !there.has(f.key));
  return rest.length
    ? [{ key: 'rest', name: 'What else is new: measured or confirmed', tasks: [], features: rest }]
    : [];
}

function pressed(job: Job, step: Step): string[] {
  return job.tasks.flatMap((t) => (t.kind === 'press' && step.tasks.includes(t.key) ? t.features : []));
}
