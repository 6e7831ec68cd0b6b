import type { Job } from '../../api/client';
import { EndPlayWork } from './EndPlayWork';
import { FirstHourWork } from './FirstHourWork';
import { GreaseWork } from './GreaseWork';
import { PackingWork } from './PackingWork';
import { PictureWork } from './PictureWork';
import { PressWork } from './PressWork';
import { RunInWork } from './RunInWork';
import { StackWork } from './StackWork';
import { TorqueWork } from './TorqueWork';
import { TurningWork } from './TurningWork';

const PLAIN: Record<string, (props: { job: Job; step: string }) => React.ReactNode> = {
  grease: GreaseWork,
  turning: TurningWork,
  'end-play': EndPlayWork,
  'run-in': RunInWork,
  'first-hour': FirstHourWork,
};

/** One thing a step is done with, by its name in the step: “stack:seal”, “torque:lock nut”, “turning”. */
export function Work({ job, work, step }: { job: Job; work: string; step: string }) {
  const { stacks, presses, tightenings, pictures, packing } = job.building;
  const [kind = ''] = work.split(':', 1);
  const key = work.slice(kind.length + 1);
  const stack = stacks.find((s) => s.place === key);
  const press = presses.find((p) => p.key === key);
  const torque = tightenings.find((t) => t.key === key);
  const picture = pictures.find((p) => p.key === key);
  if (kind === 'stack' && stack) return <StackWork job={job} stack={stack} />;
  if (kind === 'press' && press) return <PressWork press={press} />;
  if (kind === 'torque' && torque) return <TorqueWork job={job} one={torque} />;
  if (kind === 'picture' && picture) return <PictureWork picture={picture} />;
  if (kind === 'packing' && packing) return <PackingWork packing={packing} />;
  const Plain = PLAIN[kind];
  return Plain ? <Plain job={job} step={step} /> : null;
}
