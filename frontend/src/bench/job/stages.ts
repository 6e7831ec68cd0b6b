import type { Feature, Job } from '../../api/client';
import { standing } from './standing';

export const STAGES = [
  ['prepare', 'Prepare'],
  ['strip', 'Strip'],
  ['inspect', 'Inspect'],
  ['decide', 'Decide'],
  ['build', 'Build'],
  ['set', 'Set'],
  ['prove', 'Prove'],
  ['close', 'Close'],
] as const;

export type StageKey = (typeof STAGES)[number][0];

export const isStage = (key: string | undefined): key is StageKey => STAGES.some(([k]) => k === key);

export function nextStage(key: StageKey): StageKey {
  const index = STAGES.findIndex(([k]) => k === key);
  return STAGES[Math.min(index + 1, STAGES.length - 1)]?.[0] ?? key;
}

/** Where the work stands: the first stage with something open. */
export function presentStage(job: Job): StageKey {
  if (job.signed || job.abandoned) return 'close';
  const open = job.stages.find((s) => s.done < s.of);
  return isStage(open?.key) ? open.key : 'close';
}

/** Hold points passed over: undone in a stage before the one in hand. */
export function passedOver(job: Job, stage: StageKey): Job['steps'] {
  const place = (key: string) => STAGES.findIndex(([k]) => k === key);
  return job.steps.filter((s) => s.hold && s.by === null && place(s.stage) < place(stage));
}

/** What is still open in a stage, in a few words. */
export function openIn(job: Job, key: StageKey): string {
  const stage = job.stages.find((s) => s.key === key);
  if (!stage) return '';
  if (key === 'close') return job.signed ? 'signed' : job.abandoned ? 'abandoned' : '';
  if (key === 'set') return set(job, stage.done, stage.of);
  if (key === 'decide') return stage.of === stage.done ? '' : `${stage.of - stage.done} open`;
  if (key === 'build' && !stage.of && job.steps.some((s) => s.reopened)) return 'at Set';
  return `${stage.done} of ${stage.of}`;
}

/** Right only when every gap of the pump is, and what setting took apart is together again. */
function set(job: Job, done: number, of: number): string {
  if (of > 0 && done === of) return 'right';
  const tries = standing(job.setting);
  return tries.length ? `try ${tries.at(-1)?.number}, ${of - done} open` : '';
}

/** What is still to measure or to look at: what the symptom points at first, then by number. */
export function toDo(features: Feature[]): Feature[] {
  const open = features.filter((f) => f.wanted && !f.done && f.kind !== 'pair');
  return [...open].sort((a, b) => (a.suspect || 999) - (b.suspect || 999) || a.number - b.number);
}

/** The numbered gaps of the drawing: not the sizes taken only of parts about to be pressed. */
export function drawn(job: Job): Feature[] {
  return job.features.filter((f) => !f.press);
}
