import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Job, type Step } from '../api/client';
import { useKeys } from '../app/keys';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { moment } from '../app/time';
import { Photos } from './Photos';
import { useChange } from './useJob';
import { useUnread } from './useUnread';

/** The steps of a stage: done ones folded, the present one large, the next ones visible. */
export function Steps({ job, stage }: { job: Job; stage: string }) {
  const steps = job.steps.filter((s) => s.stage === stage);
  const done = steps.filter((s) => s.by !== null);
  const [present, ...later] = steps.filter((s) => s.by === null);
  return (
    <section className="steps" aria-label="Steps">
      <DoneSteps job={job} done={done} of={steps.length} unfold={!present} />
      {present ? (
        <PresentStep key={present.key} job={job} step={present} />
      ) : (
        <p className="all-done">All {steps.length} done.</p>
      )}
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

/** The step in hand, large: what is done, why, what to look at, and with what. */
function PresentStep({ job, step }: { job: Job; step: Step }) {
  const mark = useChange('steps', job.number);
  const [note, setNote] = useState('');
  const [noting, setNoting] = useState(false);
  const [skipping, setSkipping] = useState<string | null>(null);
  const isUnread = useUnread();
  const asked = useRef(false);
  const waits = step.waits.length > 0;
  const send = (skip: string) => {
    if (job.signed || asked.current || (!skip && (waits || isUnread()))) return;
    asked.current = true;
    mark.mutate({ id: newId(), step: step.key, note, skip }, { onError: () => (asked.current = false) });
  };
  useKeys(
    job.signed || waits
      ? []
      : [{ key: 'd', label: step.caution ? 'acknowledge' : 'done', run: () => send('') }],
  );
  return (
    <div className={`present-step${step.caution ? ' caution' : ''}`}>
      {step.caution && <p className="tag-line">Caution. Acknowledged by name and time.</p>}
      {step.hold && !step.caution && <p className="tag-line">Hold point: nothing is signed without it.</p>}
      <p className="step-text">{step.text}</p>
      {step.tells.length > 0 && <p className="tells">{step.tells.join(' ')}</p>}
      {step.why && <p className="why">{step.why}</p>}
      {step.look && (
        <p className="look-at">
          <b>Look:</b> {step.look}
        </p>
      )}
      {step.tools.length + step.consumables.length > 0 && (
        <p className="quiet">With {[...step.tools, ...step.consumables].join(', ')}.</p>
      )}
      {waits && <p className="waits">Before it is done: {step.waits.join(' ')}</p>}
      <div className="choices">
        <Button size="lg" onClick={() => send('')} disabled={mark.isPending || waits || job.signed !== null}>
          {step.caution ? 'I have made sure of this' : 'Done'}
        </Button>
        {!job.signed && (
          <>
            <button type="button" className="tool" aria-pressed={noting} onClick={() => setNoting(!noting)}>
              Note
            </button>
            <Photos job={job} photos={step.photos} of={{ step: step.key }} what="this step" />
            <button
              type="button"
              className="tool"
              aria-pressed={skipping !== null}
              onClick={() => setSkipping(skipping === null ? '' : null)}
            >
              Skip …
            </button>
          </>
        )}
      </div>
      {noting && (
        <TextField
          autoFocus
          label="Note, kept with the step"
          value={note}
          maxLength={300}
          onChange={setNote}
        />
      )}
      {skipping !== null && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (skipping.trim()) send(skipping);
          }}
        >
          <TextField
            autoFocus
            label={step.hold || step.caution ? 'Why is it skipped? Only a lead may.' : 'Why is it skipped?'}
            value={skipping}
            maxLength={300}
            onChange={setSkipping}
          />
          <Button type="submit" variant="outline-primary" disabled={mark.isPending || !skipping.trim()}>
            Skip it, for this reason
          </Button>
        </form>
      )}
      <ProblemNote error={mark.error} />
    </div>
  );
}

interface DoneProps {
  job: Job;
  done: Step[];
  of: number;
  unfold: boolean;
}

function DoneSteps({ job, done, of, unfold }: DoneProps) {
  const [open, setOpen] = useState(false);
  const clear = useChange('steps/clear', job.number);
  if (!done.length) return null;
  return (
    <div className="done-steps">
      <button type="button" className="fold" aria-expanded={open} onClick={() => setOpen(!open)}>
        {done.length} of {of} done {open ? '▴' : '▾'}
      </button>
      {(open || unfold) && (
        <ul>
          {done.map((s) => (
            <li key={s.key}>
              <span>{s.text}</span>
              {s.skipped && <span className="warning"> Skipped: {s.skipped}</span>}
              {s.note && <span> “{s.note}”</span>}
              <small>
                {s.by}, {s.at ? moment(s.at) : ''}
                {!job.signed && (
                  <button type="button" className="take-back" onClick={() => clear.mutate({ step: s.key })}>
                    take back
                  </button>
                )}
              </small>
              {s.photos.length > 0 && (
                <Photos job={job} photos={s.photos} of={{ step: s.key }} what={s.text} />
              )}
            </li>
          ))}
        </ul>
      )}
      <ProblemNote error={clear.error} />
    </div>
  );
}
