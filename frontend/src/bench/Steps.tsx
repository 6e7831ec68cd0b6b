import { useEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Job, type Step } from '../api/client';
import { useKeys } from '../app/keys';
import { ProblemNote } from '../app/ProblemNote';
import { moment } from '../app/time';
import { useChange } from './useJob';

/** A step on screen for less than this has not been read. */
const UNREAD_MS = 400;

/** The steps of a stage: done ones folded, the present one large, the next ones visible. */
export function Steps({ job, stage }: { job: Job; stage: string }) {
  const steps = job.steps.filter((s) => s.stage === stage);
  const done = steps.filter((s) => s.by !== null);
  const open = steps.filter((s) => s.by === null);
  const [present, ...later] = open;
  const [unfolded, setUnfolded] = useState(false);
  const mark = useChange('steps', job.number);
  const clear = useChange('steps/clear', job.number);
  const asked = useRef('');
  const read = useRef(true);
  const shown = useRef(present?.key);
  useEffect(() => {
    asked.current = '';
    if (shown.current === present?.key) return undefined;
    shown.current = present?.key;
    read.current = false;
    const timer = setTimeout(() => (read.current = true), UNREAD_MS);
    return () => clearTimeout(timer);
  }, [present?.key]);
  // A double press must not acknowledge the step that comes up in the same place a moment later.
  const doPresent = () => {
    if (!present || job.signed || asked.current === present.key || !read.current) return;
    asked.current = present.key;
    mark.mutate({ id: newId(), step: present.key }, { onError: () => (asked.current = '') });
  };
  useKeys(
    present && !job.signed
      ? [{ key: 'd', label: present.caution ? 'acknowledge' : 'done', run: doPresent }]
      : [],
  );
  return (
    <section className="steps" aria-label="Steps">
      {done.length > 0 && (
        <div className="done-steps">
          <button
            type="button"
            className="fold"
            aria-expanded={unfolded}
            onClick={() => setUnfolded(!unfolded)}
          >
            {done.length} of {steps.length} done {unfolded ? '▴' : '▾'}
          </button>
          {(unfolded || !present) && (
            <ul>
              {done.map((s) => (
                <DoneStep
                  key={s.key}
                  step={s}
                  onClear={job.signed ? null : () => clear.mutate({ step: s.key })}
                />
              ))}
            </ul>
          )}
        </div>
      )}
      {present ? (
        <div className={`present-step${present.caution ? ' caution' : ''}`}>
          {present.caution && <p className="tag-line">Caution. Acknowledged by name and time.</p>}
          {present.hold && !present.caution && (
            <p className="tag-line">Hold point: nothing is signed without it.</p>
          )}
          <p className="step-text">{present.text}</p>
          {present.why && <p className="why">{present.why}</p>}
          <Button size="lg" onClick={doPresent} disabled={mark.isPending || job.signed !== null}>
            {present.caution ? 'I have made sure of this' : 'Done'}
          </Button>
        </div>
      ) : (
        <p className="all-done">All {steps.length} done.</p>
      )}
      <ProblemNote error={mark.error ?? clear.error} />
      <ol className="later-steps">
        {later.map((s) => (
          <li key={s.key}>
            {s.text}
            {s.hold && <em> Hold point.</em>}
          </li>
        ))}
      </ol>
      {stage === 'prepare' || stage === 'prove' ? (
        <p className="quiet">
          Local law, site rules, the maker's manual and licensed trades rule over this list. Isolate before
          touching; never run with a gap of zero.
        </p>
      ) : null}
    </section>
  );
}

function DoneStep({ step, onClear }: { step: Step; onClear: (() => void) | null }) {
  return (
    <li>
      <span>{step.text}</span>
      <small>
        {step.by}, {step.at ? moment(step.at) : ''}
        {onClear && (
          <button type="button" className="take-back" onClick={onClear}>
            take back
          </button>
        )}
      </small>
    </li>
  );
}
