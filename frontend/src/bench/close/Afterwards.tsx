import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Job } from '../../api/client';
import { meQuery } from '../../api/queries';
import { PinField } from '../../app/PinField';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { moment } from '../../app/time';
import { useChange } from '../job/useJob';

/** A job opened by mistake is given up: kept and marked, its pump free, what it took from the shelf there again. */
export function Abandon({ job }: { job: Job }) {
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState('');
  const abandon = useChange('abandon', job.number);
  if (!asking) {
    return (
      <p>
        <button type="button" className="take-back" onClick={() => setAsking(true)}>
          Abandon this job
        </button>
      </p>
    );
  }
  return (
    <form
      className="panel"
      aria-label="Abandon this job"
      onSubmit={(event) => {
        event.preventDefault();
        abandon.mutate({ id: newId(), reason });
      }}
    >
      <p>
        It is kept and marked, and can only be read. {job.pump.tag} is free for another job; gaskets or shims
        it took go back to the shelf.
      </p>
      <TextField autoFocus label="Why is it abandoned?" value={reason} maxLength={300} onChange={setReason} />
      <ProblemNote error={abandon.error} />
      <div className="choices">
        <Button type="submit" variant="outline-primary" disabled={abandon.isPending || !reason.trim()}>
          Abandon job {job.number}
        </Button>
        <button type="button" className="tool" onClick={() => setAsking(false)}>
          Leave it
        </button>
      </div>
    </form>
  );
}

/** What was put right after the signature: the page stays as it was, each adds one. */
export function Amendments({ job }: { job: Job }) {
  const me = useQuery(meQuery);
  const [asking, setAsking] = useState(false);
  return (
    <section aria-label="Amendments">
      {job.amendments.length > 0 && <h2>Amended since</h2>}
      <ul className="log">
        {job.amendments.map((one) => (
          <li key={one.number}>
            <span>
              {one.void && <b>Void{one.belongs_to && `, belongs to ${one.belongs_to}`}. </b>}
              {one.what} Because: {one.reason}
              {one.own && <em> By a lead who had worked on this job.</em>}
            </span>
            <small>
              {one.by}, {moment(one.at)}
            </small>
          </li>
        ))}
      </ul>
      {me.data?.role === 'lead' &&
        (asking ? (
          <AmendForm job={job} onDone={() => setAsking(false)} />
        ) : (
          <button type="button" className="take-back" onClick={() => setAsking(true)}>
            Amend it
          </button>
        ))}
    </section>
  );
}

function AmendForm({ job, onDone }: { job: Job; onDone: () => void }) {
  const [what, setWhat] = useState('');
  const [reason, setReason] = useState('');
  const [isVoid, setVoid] = useState(false);
  const [belongs, setBelongs] = useState('');
  const [pin, setPin] = useState('');
  const identity = useRef(newId());
  const amend = useChange('amendments', job.number);
  return (
    <form
      className="panel"
      aria-label="Amend it"
      onSubmit={(event) => {
        event.preventDefault();
        const given = { id: identity.current, what, reason, void: isVoid, belongs_to: belongs, pin };
        amend.mutate(given, { onSuccess: onDone });
        setPin('');
      }}
    >
      <p>The signed page stays as it is. This adds a page with your name.</p>
      <TextField
        autoFocus
        label="What was wrong, and what is right"
        value={what}
        maxLength={2000}
        onChange={setWhat}
      />
      <TextField label="Because" value={reason} maxLength={300} onChange={setReason} />
      <label>
        <input type="checkbox" checked={isVoid} onChange={(event) => setVoid(event.target.checked)} /> Void:
        nothing of it counts for {job.pump.tag}, and its sizes leave the wear of its parts
      </label>
      {isVoid && (
        <TextField
          label="It belongs to pump (tag), if known"
          value={belongs}
          maxLength={30}
          onChange={setBelongs}
        />
      )}
      <PinField value={pin} onChange={setPin} />
      <ProblemNote error={amend.error} />
      <div className="choices">
        <Button type="submit" disabled={amend.isPending}>
          Amend job {job.number}
        </Button>
        <button type="button" className="tool" onClick={onDone}>
          Leave it
        </button>
      </div>
    </form>
  );
}
