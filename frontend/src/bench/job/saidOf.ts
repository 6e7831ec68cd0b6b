import type { Job } from '../../api/client';

const KINDS: Record<string, string> = {
  steps: 'step done',
  known: 'what is known',
  'on-hand': 'on hand',
  looks: 'looked at',
  readings: 'reading',
  'readings/set': 'pasted readings',
  photos: 'photograph',
  'photos/remove': 'photograph taken off',
  decisions: 'decision',
  parts: 'part fitted',
  torques: 'torque',
  'on-the-bench': 'on the bench',
  zero: 'zero found',
  tries: 'try',
  proofs: 'seen',
  'run-in': 'line of the run-in',
  'new-parts': 'new part in',
  strike: 'struck out',
};

/** A change in a few words, for the list of what waits: “reading 30.05, Idler, bore”. */
export function saidOf(kind: string, change: object, job?: Job): string {
  const given = change as Record<string, unknown>;
  const text = (key: string) => (typeof given[key] === 'string' ? given[key] : '');
  const feature = job?.features.find((f) => f.key === text('feature'))?.name ?? text('feature');
  const step = job?.steps.find((s) => s.key === text('step'))?.text ?? text('step');
  const rest = [feature, step.slice(0, 60), text('part'), text('fastener'), text('seen')].filter(Boolean);
  const what = [KINDS[kind] ?? kind, text('typed') || text('decided')].filter(Boolean).join(' ');
  return [what, ...rest].join(', ');
}
