import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type FirstHour, type Job } from '../../api/client';
import { Lines } from '../../app/Lines';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { moment } from '../../app/time';
import { useDraft } from '../../app/unit';
import { useSign } from '../../app/works';
import { StrikeOut } from '../job/StrikeOut';
import { useChange } from '../job/useJob';

interface AtStep {
  job: Job;
  step: string;
}

/** The first hour: flow by bucket or meter, pressure, power, noise and temperature, set against what slip and the gap say. */
export function FirstHourTask({ job, view, step }: AtStep & { view: FirstHour }) {
  const { slip } = job;
  return (
    <section aria-label="First hour">
      <h2>The first hour</h2>
      {view.lines.length > 0 && <Lines lines={view.lines} />}
      {!job.signed && (
        <div className="first-hour">
          <Bucket job={job} step={step} />
          <One job={job} step={step} seen="flow" label="Or flow by meter" />
          <One job={job} step={step} seen="pressure" label="Pressure difference" />
          <One job={job} step={step} seen="power" label="Power taken" />
          <One job={job} step={step} seen="temperature" label="Bearing" />
          <Noise job={job} step={step} noises={view.noises} />
        </div>
      )}
      {view.seen.length > 0 && (
        <ul className="seen">
          {view.seen.map((s) => (
            <li key={s.seen}>
              {s.seen} {s.typed}, {s.by} {moment(s.at)}{' '}
              <StrikeOut job={job} kind="proof" record={s.id} what={`${s.seen} ${s.typed}`} />
            </li>
          ))}
        </ul>
      )}
      {slip.left.length > 0 && (
        <details>
          <summary>What slip and the gaps predict</summary>
          <Lines lines={slip.left} />
        </details>
      )}
    </section>
  );
}

interface OneProps extends AtStep {
  seen: 'flow' | 'pressure' | 'power' | 'temperature';
  label: string;
}

function One({ job, step, seen, label }: OneProps) {
  const sign = useSign(seen);
  const [typed, setTyped] = useDraft('', sign);
  const save = useChange('proofs', job.number);
  return (
    <Row
      error={save.error}
      pending={save.isPending}
      what={seen}
      onSave={(id) => save.mutate({ id, step, seen, typed, seconds: '' }, { onSuccess: () => setTyped('') })}
    >
      <TextField short label={`${label} (${sign})`} value={typed} onChange={setTyped} />
    </Row>
  );
}

function Bucket({ job, step }: AtStep) {
  const sign = useSign('volume');
  const [typed, setTyped] = useDraft('', sign);
  const [seconds, setSeconds] = useState('');
  const save = useChange('proofs', job.number);
  return (
    <Row
      error={save.error}
      pending={save.isPending}
      what="bucket"
      onSave={(id) => save.mutate({ id, step, seen: 'flow', typed, seconds })}
    >
      <TextField short label={`Flow: bucket (${sign})`} value={typed} onChange={setTyped} />
      <TextField short label="in seconds" value={seconds} onChange={setSeconds} />
    </Row>
  );
}

function Noise({ job, step, noises }: AtStep & { noises: FirstHour['noises'] }) {
  const [typed, setTyped] = useState('');
  const save = useChange('proofs', job.number);
  return (
    <Row
      error={save.error}
      pending={save.isPending}
      what="noise"
      onSave={(id) => save.mutate({ id, step, seen: 'noise', typed, seconds: '' })}
    >
      <label className="field">
        Noise
        <select value={typed} onChange={(event) => setTyped(event.target.value)}>
          <option value="">choose</option>
          {noises.map((n) => (
            <option key={n.key} value={n.key}>
              {n.name}
            </option>
          ))}
        </select>
      </label>
    </Row>
  );
}

interface RowProps {
  error: Error | null;
  pending: boolean;
  what: string;
  onSave: (id: string) => void;
  children: React.ReactNode;
}

function Row({ error, pending, what, onSave, children }: RowProps) {
  const identity = useRef(newId());
  return (
    <form
      aria-label={what}
      onSubmit={(event) => {
        event.preventDefault();
        if (pending) return;
        onSave(identity.current);
        identity.current = newId();
      }}
    >
      <div className="try-check">
        {children}
        <Button type="submit" variant="outline-primary" disabled={pending}>
          Save
        </Button>
      </div>
      <ProblemNote error={error} />
    </form>
  );
}
