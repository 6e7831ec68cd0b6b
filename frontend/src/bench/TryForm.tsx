import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Job, type Piece, type Setting } from '../api/client';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { useDraft, useUnit } from '../app/unit';
import { CheckRows, Proof, useChecks } from './CheckRows';
import { pageName } from './StageWorks';
import { StackCounts, useStack } from './StackCounts';
import { standing } from './standing';
import { useChange } from './useJob';

/** Record a try: what was done, and what the checks read. */
export function TryForm({ job, setting }: { job: Job; setting: Setting }) {
  const { housing, gaskets, shims, timing } = setting;
  const [arc, setArc] = useDraft(firstArc(setting));
  const [toward, setToward] = useState(timing?.toward ?? '');
  const one = useStack(gaskets?.next ?? shims?.shafts[0]?.next ?? []);
  const other = useStack(shims?.shafts[1]?.next ?? []);
  const checks = useChecks(job, setting);
  const identity = useRef(newId());
  const record = useChange('tries', job.number);
  const number = (setting.tries.at(-1)?.number ?? 0) + 1;
  const before = standing(setting).at(-1);
  const [opened, setOpened] = useState<boolean | null>(null);
  const [tightened, setTightened] = useState(false);

  function save() {
    if (record.isPending) return;
    const stacks = gaskets ? [one.pieces] : shims ? [one.pieces, other.pieces] : [];
    const way = timing ? (toward === 'right' ? 'right' : 'left') : setting.way === 'close' ? 'close' : 'open';
    const sets = setting.sets === 'mesh' ? 'mesh' : 'gap';
    record.mutate({
      id: identity.current,
      sets,
      arc: housing || timing ? arc : '',
      way,
      stacks_um: stacks,
      checks: checks.typed,
      trial: tightened,
      opened: setting.asks_opened ? opened : null,
    });
  }

  const trial = timing !== null && !before;
  const isChanged = gaskets
    ? isOther(gaskets.now, one.pieces)
    : isOther(shims?.shafts[0]?.now ?? [], one.pieces) || isOther(shims?.shafts[1]?.now ?? [], other.pieces);
  // Another stack means the pump was opened; of the first try only the technician knows.
  const opens =
    setting.opens.length > 0 && (before ? isChanged : setting.asks_opened ? opened === true : true);
  return (
    <form
      className="try-form"
      aria-label={`Try ${number}`}
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      {gaskets && (
        <StackCounts
          legend={`Gaskets ${setting.place}, as compressed`}
          stack={one}
          now={gaskets.now}
          box={gaskets.box}
        />
      )}
      {shims?.shafts.map((shaft, i) => (
        <StackCounts
          key={shaft.name}
          legend={`Shims of the ${shaft.name}`}
          stack={i === 0 ? one : other}
          now={[...(shims.shafts[0]?.now ?? []), ...(shims.shafts[1]?.now ?? [])]}
          box={shims.box}
          taken={i === 0 ? other.counts : one.counts}
        />
      ))}
      <div className="try-check">
        {housing && <Arc label={`Arc ${turned(setting)}`} value={arc} onChange={setArc} />}
        {timing && !trial && (
          <>
            <Arc label="Turned by, along the marks" value={arc} onChange={setArc} />
            <label className="field short">
              towards the
              <select value={toward} onChange={(e) => setToward(e.target.value)}>
                <option value="left">left</option>
                <option value="right">right</option>
              </select>
            </label>
          </>
        )}
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

/** Whether a stack is another than what is in the pump, whatever the order it is counted in. */
function isOther(now: Piece[], pieces: number[]): boolean {
  const before = now.flatMap((p) => Array.from({ length: p.count }, () => p.um));
  const sorted = (all: number[]) => [...all].sort((a, b) => a - b).join();
  return sorted(before) !== sorted(pieces);
}

function Arc({ label, value, onChange }: { label: string; value: string; onChange: (text: string) => void }) {
  const { unit } = useUnit();
  return <TextField short label={`${label} (${unit})`} value={value} onChange={onChange} />;
}

/** What the move asks for, to be put right where it was turned otherwise. */
function firstArc({ housing, timing, way, right }: Setting): string {
  if (timing) return timing.toward ? timing.arc : '0';
  return housing && way !== 'stay' && !right ? housing.arc : '0';
}

function turned({ housing, way }: Setting): string {
  const closing = way === 'close';
  return (housing?.hand === 'right') === closing ? 'clockwise' : 'counterclockwise';
}
