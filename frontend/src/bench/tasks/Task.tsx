import type { ReactNode } from 'react';
import type { Job, TaskView } from '../../api/client';
import { AskedTask } from './AskedTask';
import { EndPlayTask } from './EndPlayTask';
import { FirstHourTask } from './FirstHourTask';
import { GreaseTask } from './GreaseTask';
import { PackingTask } from './PackingTask';
import { PictureTask } from './PictureTask';
import { PressTask } from './PressTask';
import { RunInTask } from './RunInTask';
import { StackTask } from './StackTask';
import { TorqueTask } from './TorqueTask';
import { TurningTask } from './TurningTask';

type TaskKind = TaskView['kind'];

interface TaskProps<K extends TaskKind> {
  job: Job;
  view: Extract<TaskView, { kind: K }>;
  /** The step that is done with it. */
  step: string;
}

const TASKS: { [K in TaskKind]: (props: TaskProps<K>) => ReactNode } = {
  asked: AskedTask,
  'end-play': EndPlayTask,
  'first-hour': FirstHourTask,
  grease: GreaseTask,
  packing: PackingTask,
  picture: PictureTask,
  press: PressTask,
  // Prepare shows the list of what is needed beside its steps.
  ready: () => null,
  'run-in': RunInTask,
  stack: StackTask,
  torque: TorqueTask,
  turning: TurningTask,
};

/** One thing a step is done with, by its key; nothing where the sheet says nothing of it. */
export function Task({ job, task, step }: { job: Job; task: string; step: string }) {
  const view = job.tasks.find((one) => one.key === task);
  return view ? <OfKind kind={view.kind} view={view} job={job} step={step} /> : null;
}

function OfKind<K extends TaskKind>({ kind, ...props }: TaskProps<K> & { kind: K }) {
  const Shown: (props: TaskProps<K>) => ReactNode = TASKS[kind];
  return <Shown {...props} />;
}
