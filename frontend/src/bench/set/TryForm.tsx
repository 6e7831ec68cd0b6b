import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Job, type Setting } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { CheckRows, Proof, useChecks } from './CheckRows';
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
  const means = partsOf(kind);
  const done = means.useTry(setting, view);
  const checks = useChecks(job, setting);
  const identity = useRef(newId());
  const record = useChange('tries', job.number);
  const number = (setting.tries.at(-1)?.number ?? 0) + 1;
  const before = standing(setting).at(-1);
  const [opened, setOpened] = useState<boolean | null>(null);
  const [tightened, setTightened] = useState(false);

  function save() {
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
  }

  // Another stack means the pump was opened; of the first try only the technician knows.
  const opens =
    setting.opens.length > 0 && (before ? done.isChanged : setting.asks_opened ? opened === true : true);
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
      <div className="try-check">
        {done.beside}
        {checks.single && <CheckRows checks={checks} setting={setting} />}
      </div>
      {!checks.single && <CheckRows checks={checks} setting={setting} />}
      {checks.single && setting.gaps[0] && <Proof gap={setting.gaps[0]} index={0} checks={checks} />}
      {setting.asks_opened && (
        <fieldset className="turns">
          <legend>It was put together at Build. For this try it was</legend>
          <label>
            <input type="radio" name="opened" checked={opened === false} onChange={() => setOpened(false)} />{' '}
            checked as it was built
          </label>
          <label>
            <input type="radio" name="opened" checked={opened === true} onChange={() => setOpened(true)} />{' '}
            opened
          </label>
        </fieldset>
      )}
      {opens && (
        <div className="opens">
          <p>
            Opened for this, {setting.opens.length === 1 ? 'this is' : 'these are'} to be done again here,
            after the last change: {setting.opens.map((text) => pageName(text)).join('; ')}.
          </p>
          <label>
            <input type="checkbox" checked={tightened} onChange={(e) => setTightened(e.target.checked)} />{' '}
            Tightened for the trial, evenly
          </label>
        </div>
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
