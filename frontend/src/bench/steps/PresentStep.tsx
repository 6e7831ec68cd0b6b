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
import { Photos } from '../job/Photos';
import { useChange } from '../job/useJob';
import { useUnread } from '../job/useUnread';

/** The step in hand, large: what is done, why, what to look at, and with what. */
export function PresentStep({ job, step }: { job: Job; step: Step }) {
  const marking = useMarking(job, step);
  const [noting, setNoting] = useState(false);
  const [asking, setAsking] = useState<Asking>(null);
  return (
    <div className={`present-step${step.caution ? ' caution' : ''}`}>
      <Words step={step} />
      {marking.waits && <p className="waits">Before it is done: {step.waits.join(' ')}</p>}
      {marking.early && <p className="waits">It is not its turn yet. {step.early.join(' ')}</p>}
      <div className="choices">
        <Button size="lg" onClick={() => marking.send({})} disabled={!marking.may}>
          {doneWords(step, marking.isWaiting)}
        </Button>
        {!marking.off && (
          <>
            <Toggle on={noting} onToggle={() => setNoting(!noting)}>
              Note
            </Toggle>
            <Photos job={job} photos={step.photos} of={{ step: step.key }} what="this step" />
            <Toggle on={asking === 'skip'} onToggle={() => setAsking(asking === 'skip' ? null : 'skip')}>
              Skip …
            </Toggle>
            {marking.mayOverride && (
              <Toggle on={asking === 'past'} onToggle={() => setAsking(asking === 'past' ? null : 'past')}>
                Do it now, as lead …
              </Toggle>
            )}
          </>
        )}
      </div>
      {noting && (
        <TextField
          autoFocus
          label="Note, kept with the step"
          value={marking.note}
          maxLength={300}
          onChange={marking.setNote}
        />
      )}
      {asking && <Reasoned key={asking} asking={asking} step={step} marking={marking} />}
      <ProblemNote error={marking.error} onConfirm={marking.confirm} />
    </div>
  );
}

type Asking = 'skip' | 'past' | null;

/** Marks a step: done, skipped, or by a lead out of its turn; once, and not before it was read. */
function useMarking(job: Job, step: Step) {
  const mark = useChange('steps', job.number);
  const me = useQuery(meQuery);
  const [note, setNote] = useState('');
  const isUnread = useUnread();
  const asked = useRef(false);
  const kept = useIsKept(job, step);
  const lead = me.data?.role === 'lead';
  const stand = standOf(job, step);
  const { waits, early, off } = stand;
  const send = (more: { skip?: string; past?: string; pin?: string }) => {
    if (off || kept || asked.current || (!more.skip && (waits || isUnread()))) return;
    asked.current = true;
    mark.mutate(
      { id: newId(), step: step.key, note, skip: '', past: '', pin: '', ...more },
      { onError: () => (asked.current = false) },
    );
  };
  const label = step.caution ? 'acknowledge' : 'done';
  useKeys(stand.isFree ? [{ key: 'd', label, run: () => send({}) }] : []);
  return {
    ...{ ...stand, note, setNote, lead, send },
    isPending: mark.isPending,
    error: mark.error,
    confirm: mark.confirm,
    may: stand.isFree && !mark.isPending && !kept,
    mayOverride: early && !waits && lead,
    isWaiting: kept && (!mark.isPending || mark.failureCount > 0 || mark.isPaused),
  };
}

type Marking = ReturnType<typeof useMarking>;

/** What stands in the way of a step. */
function standOf(job: Job, step: Step) {
  const waits = step.waits.length > 0;
  const early = step.early.length > 0;
  const off = Boolean(job.signed ?? job.abandoned);
  return { waits, early, off, isFree: !waits && !early && !off };
}

/** Whether the mark of a step is not answered yet, or waits behind another change that is not. */
function useIsKept(job: Job, step: Step): boolean {
  return useWaiting().some(
    (w) =>
      w.job === job.number &&
      w.kind === 'steps' &&
      !w.problem &&
      'step' in w.change &&
      w.change.step === step.key,
  );
}

function doneWords(step: Step, isWaiting: boolean): string {
  if (isWaiting) return 'Waiting to be saved';
  return step.caution ? 'I have made sure of this' : 'Done';
}

/** What is done, why, what to look at, and with what. */
function Words({ step }: { step: Step }) {
  const things = [...step.tools, ...step.consumables];
  return (
    <>
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
      {things.length > 0 && <p className="quiet">With {things.join(', ')}.</p>}
    </>
  );
}

interface ToggleProps {
  on: boolean;
  onToggle: () => void;
  children: string;
}

function Toggle({ on, onToggle, children }: ToggleProps) {
  return (
    <button type="button" className="tool" aria-pressed={on} onClick={onToggle}>
      {children}
    </button>
  );
}

interface ReasonedProps {
  asking: 'skip' | 'past';
  step: Step;
  marking: Marking;
}

/** Why a step is skipped, or done before its turn. A lead who goes past a rule says who it is. */
function Reasoned({ asking, step, marking }: ReasonedProps) {
  const [reason, setReason] = useState('');
  const [pin, setPin] = useState('');
  const past = asking === 'past';
  const guarded = step.hold || step.caution;
  const label = past
    ? 'Why now, before what comes first?'
    : `Why is it skipped?${guarded ? ' Only a lead may.' : ''}`;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim()) marking.send({ [asking]: reason, pin });
        setPin('');
      }}
    >
      <TextField autoFocus label={label} value={reason} maxLength={300} onChange={setReason} />
      {marking.lead && (past || guarded) && <PinField value={pin} onChange={setPin} />}
      <Button type="submit" variant="outline-primary" disabled={marking.isPending || !reason.trim()}>
        {past ? 'Do it now, for this reason' : 'Skip it, for this reason'}
      </Button>
    </form>
  );
}
