import type { ReactNode } from 'react';
import type { Job, TaskView } from '../../api/client';
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

type TaskKind = TaskView['kind'];

interface TaskProps<K extends TaskKind> {
  job: Job;
  view: Extract<TaskView, { kind: K }>;
  /** The step that is done with it. */
  step: string;
}

const TASKS: { [K in TaskKind]: (props: TaskProps<K>) => ReactNode } = {
  'end-play': EndPlayWork,
  'first-hour': FirstHourWork,
  grease: GreaseWork,
  packing: PackingWork,
  picture: PictureWork,
  press: PressWork,
  // Prepare shows the list of what is needed beside its steps.
  ready: () => null,
  'run-in': RunInWork,
  stack: StackWork,
  torque: TorqueWork,
  turning: TurningWork,
};

/** One thing a step is done with, by its key; nothing where the sheet says nothing of it. */
export function Work({ job, task, step }: { job: Job; task: string; step: string }) {
  const view = job.tasks.find((one) => one.key === task);
  return view ? <OfKind kind={view.kind} view={view} job={job} step={step} /> : null;
}

function OfKind<K extends TaskKind>({ kind, ...props }: TaskProps<K> & { kind: K }) {
  const Task: (props: TaskProps<K>) => ReactNode = TASKS[kind];
  return <Task {...props} />;
}
