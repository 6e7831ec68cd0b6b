import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Job, type Step } from '../../api/client';
import { meQuery } from '../../api/queries';
import { useKeys } from '../../app/keys';
import { useWaiting } from '../../app/outbox';
import { PinField } from '../../app/PinField';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { moment } from '../../app/time';
import { Photos } from '../job/Photos';
import { StrikeOut } from '../job/StrikeOut';
import { useChange } from '../job/useJob';
import { useUnread } from '../job/useUnread';

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
  const me = useQuery(meQuery);
  const [note, setNote] = useState('');
  const [noting, setNoting] = useState(false);
  const [asking, setAsking] = useState<'skip' | 'past' | null>(null);
  const isUnread = useUnread();
  const asked = useRef(false);
  const waits = step.waits.length > 0;
  const early = step.early.length > 0;
  const off = Boolean(job.signed ?? job.abandoned);
  const lead = me.data?.role === 'lead';
  const send = (more: { skip?: string; past?: string; pin?: string }) => {
    if (off || kept || asked.current || (!more.skip && (waits || isUnread()))) return;
    asked.current = true;
    mark.mutate(
      { id: newId(), step: step.key, note, skip: '', past: '', pin: '', ...more },
      { onError: () => (asked.current = false) },
    );
  };
  useKeys(
    off || waits || early
      ? []
      : [{ key: 'd', label: step.caution ? 'acknowledge' : 'done', run: () => send({}) }],
  );
  // Not answered, or behind another that is not.
  const kept = useWaiting().some(
    (w) =>
      w.job === job.number &&
      w.kind === 'steps' &&
      !w.problem &&
      'step' in w.change &&
      w.change.step === step.key,
  );
  const waiting = kept && (!mark.isPending || mark.failureCount > 0 || mark.isPaused);
  return (
    <div className={`present-step${step.caution ? ' caution' : ''}`}>
      {step.caution && <p className="tag-line">Caution. Acknowledged by name and time.</p>}
      {step.hold && !step.caution && <p className="tag-line">Hold point: nothing is signed without it.</p>}
      <p className="step-text">{step.text}</p>
      {step.reopened && <p className="tag-line">Taken apart to set the gap: done again here.</p>}
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
      {early && <p className="waits">It is not its turn yet. {step.early.join(' ')}</p>}
      <div className="choices">
        <Button size="lg" onClick={() => send({})} disabled={mark.isPending || kept || waits || early || off}>
          {waiting ? 'Waiting to be saved' : step.caution ? 'I have made sure of this' : 'Done'}
        </Button>
        {!off && (
          <>
            <button type="button" className="tool" aria-pressed={noting} onClick={() => setNoting(!noting)}>
              Note
            </button>
            <Photos job={job} photos={step.photos} of={{ step: step.key }} what="this step" />
            <button
              type="button"
              className="tool"
              aria-pressed={asking === 'skip'}
              onClick={() => setAsking(asking === 'skip' ? null : 'skip')}
            >
              Skip …
            </button>
            {early && !waits && lead && (
              <button
                type="button"
                className="tool"
                aria-pressed={asking === 'past'}
                onClick={() => setAsking(asking === 'past' ? null : 'past')}
              >
                Do it now, as lead …
              </button>
            )}
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
      {asking && (
        <Reasoned
          key={asking}
          label={
            asking === 'past'
              ? 'Why now, before what comes first?'
              : step.hold || step.caution
                ? 'Why is it skipped? Only a lead may.'
                : 'Why is it skipped?'
          }
          asksPin={lead && (asking === 'past' || step.hold || step.caution)}
          off={mark.isPending}
          onSend={(reason, pin) => send({ [asking]: reason, pin })}
        >
          {asking === 'past' ? 'Do it now, for this reason' : 'Skip it, for this reason'}
        </Reasoned>
      )}
      <ProblemNote error={mark.error} onConfirm={mark.confirm} />
    </div>
  );
}

interface ReasonedProps {
  label: string;
  /** A lead who goes past a rule says who it is. */
  asksPin: boolean;
  off: boolean;
  onSend: (reason: string, pin: string) => void;
  children: string;
}

function Reasoned({ label, asksPin, off, onSend, children }: ReasonedProps) {
  const [reason, setReason] = useState('');
  const [pin, setPin] = useState('');
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim()) onSend(reason, pin);
        setPin('');
      }}
    >
      <TextField autoFocus label={label} value={reason} maxLength={300} onChange={setReason} />
      {asksPin && <PinField value={pin} onChange={setPin} />}
      <Button type="submit" variant="outline-primary" disabled={off || !reason.trim()}>
        {children}
      </Button>
    </form>
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
              {s.past && <span className="warning"> Out of its turn: {s.past}</span>}
              {s.own && <span className="warning"> By a lead who works on this job.</span>}
              {s.note && <span> “{s.note}”</span>}
              <small>
                {s.by}, {s.at ? moment(s.at) : ''}
                <StrikeOut job={job} kind="step" record={s.id} what={s.text}>
                  take back
                </StrikeOut>
              </small>
              {s.photos.length > 0 && (
                <Photos job={job} photos={s.photos} of={{ step: s.key }} what={s.text} />
              )}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
