import { useRef, useState, type ReactNode } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Job, type Setting } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { CheckRows, Proof, useChecks, type Checks } from './CheckRows';
import { partsOf } from '../means';
import type { MeansKind, MeansProps } from '../means/kinds';
import { pageName } from '../steps/StageTasks';
import { standing } from '../job/standing';
import { useChange } from '../job/useJob';

/** Record a try: what was done, and what the checks read. */
export function TryForm({ job, setting }: { job: Job; setting: Setting }) {
  return <OfKind kind={setting.means.kind} view={setting.means} job={job} setting={setting} />;
}

function OfKind<K extends MeansKind>({ kind, view, job, setting }: MeansProps<K> & { kind: K }) {
  const done = partsOf(kind).useTry(setting, view, job);
  const checks = useChecks(job, setting, !partsOf(kind).byIndicator);
  const identity = useRef(newId());
  const record = useChange('tries', job.number);
  const number = (setting.tries.at(-1)?.number ?? 0) + 1;
  const [opened, setOpened] = useState<boolean | null>(null);
  const [tightened, setTightened] = useState(false);
  const save = () => {
    if (record.isPending) return;
    record.mutate({
      id: identity.current,
      sets: setting.sets === 'mesh' ? 'mesh' : 'gap',
      moved: done.moved,
      way: done.way,
      stacks_um: done.stacks_um,
      checks: checks.typed,
      trial: tightened,
      opened: setting.asks_opened ? opened : null,
    });
  };
  return (
    <form
      className="try-form"
      aria-label={`Try ${number}`}
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      {done.above}
      <Checked checks={checks} setting={setting} beside={done.beside} />
      {setting.asks_opened && <AskOpened opened={opened} onOpened={setOpened} />}
      {isOpened(setting, done.isChanged, opened) && (
        <ToDoAgain setting={setting} tightened={tightened} onTightened={setTightened} />
      )}
      <ProblemNote error={record.error} onConfirm={record.confirm} />
      <div className="pad-row">
        <Button type="submit" size="lg" disabled={record.isPending}>
          Record try {number}
        </Button>
        {checks.single && checks.picker(0)}
        {checks.single && (
          <button type="button" className="working-link" onClick={checks.toggle}>
            {checks.byFeeler ? 'other gauge' : 'by feeler'}
          </button>
        )}
      </div>
    </form>
  );
}

/** Whether a try opens the pump. Another stack says so; of the first try only the technician knows. */
function isOpened(setting: Setting, isChanged: boolean, opened: boolean | null): boolean {
  if (!setting.opens.length) return false;
  if (standing(setting).length) return isChanged;
  return setting.asks_opened ? opened === true : true;
}

interface CheckedProps {
  checks: Checks;
  setting: Setting;
  /** What stands beside the check of a gap that is alone. */
  beside: ReactNode;
}

/** What the checks read: one gap beside what was done, several below it. */
function Checked({ checks, setting, beside }: CheckedProps) {
  const rows = <CheckRows checks={checks} setting={setting} />;
  return (
    <>
      <div className="try-check">
        {beside}
        {checks.single && rows}
      </div>
      {!checks.single && rows}
      {checks.single && setting.gaps[0] && <Proof gap={setting.gaps[0]} index={0} checks={checks} />}
    </>
  );
}

interface AskProps {
  opened: boolean | null;
  onOpened: (opened: boolean) => void;
}

function AskOpened({ opened, onOpened }: AskProps) {
  return (
    <fieldset className="turns">
      <legend>It was put together at Build. For this try it was</legend>
      <label>
        <input type="radio" name="opened" checked={opened === false} onChange={() => onOpened(false)} />{' '}
        checked as it was built
      </label>
      <label>
        <input type="radio" name="opened" checked={opened === true} onChange={() => onOpened(true)} /> opened
      </label>
    </fieldset>
  );
}

interface AgainProps {
  setting: Setting;
  tightened: boolean;
  onTightened: (tightened: boolean) => void;
}

/** What the opened pump needs again, and that it was tightened for the check. */
function ToDoAgain({ setting, tightened, onTightened }: AgainProps) {
  return (
    <div className="opens">
      <p>
        Opened for this, {setting.opens.length === 1 ? 'this is' : 'these are'} to be done again here, after
        the last change: {setting.opens.map((text) => pageName(text)).join('; ')}.
      </p>
      <label>
        <input type="checkbox" checked={tightened} onChange={(e) => onTightened(e.target.checked)} />{' '}
        Tightened for the trial, evenly
      </label>
    </div>
  );
}
