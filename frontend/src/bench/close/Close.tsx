import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link } from 'react-router';
import { newId, type Event, type Job } from '../../api/client';
import { logQuery, meQuery } from '../../api/queries';
import { PinField } from '../../app/PinField';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { moment } from '../../app/time';
import { useUnit } from '../../app/unit';
import { Abandon, Amendments } from './Afterwards';
import { ShareReport } from './ShareReport';
import { gapName, GapSummary } from '../set/GapSummary';
import { STAGES } from '../job/stages';
import { useChange } from '../job/useJob';

/** What is still open, the gap as left, the signature, the report. */
export function Close({ job }: { job: Job }) {
  const isOpen = !job.signed && !job.abandoned;
  return (
    <div className="stage two-columns">
      <section aria-label="Still open">
        <Meanwhile job={job} />
        <h2>{stateOf(job)}</h2>
        {isOpen && job.blockers.length === 0 && (
          <p>Found and left, the gap, and the hold points are all there.</p>
        )}
        {isOpen && <Blockers job={job} />}
        <Former job={job} />
        <details open={job.signed !== null}>
          <summary>Log of the job</summary>
          <LogLines job={job} />
        </details>
      </section>
      <section aria-label="Signature">
        {job.setting && <p className="kicker">{gapName(job)} as left</p>}
        <GapSummary job={job} />
        {job.signed && <Signed signed={job.signed} />}
        {isOpen && <SignForm job={job} />}
        <ReportLinks job={job} />
        <ShareReport job={job} />
        {job.signed && <Amendments job={job} />}
        {isOpen && <Abandon job={job} />}
      </section>
    </div>
  );
}

/** What was marked of steps and parts the procedure no longer has. */
function Former({ job }: { job: Job }) {
  if (!job.former.length) return null;
  return (
    <details>
      <summary>{job.former.length} marked before the procedure changed</summary>
      <p className="quiet">The procedure no longer has these. They stay on record and count for nothing.</p>
      <ul className="log">
        {job.former.map((one) => (
          <li key={`${one.at} ${one.what}`}>
            {one.what} <small>{`${one.by}, ${moment(one.at)}`}</small>
          </li>
        ))}
      </ul>
    </details>
  );
}

function stateOf(job: Job): string {
  if (job.signed) return 'Signed';
  if (job.abandoned) return 'Abandoned';
  return job.blockers.length ? 'Still open' : 'Nothing is open';
}

function Signed({ signed }: { signed: NonNullable<Job['signed']> }) {
  return (
    <p className="lead">
      Signed by {signed.by}, {moment(signed.at)}.
      {signed.reason && ` Past what was open, because: ${signed.reason}`}
      {signed.own && ' By a lead who had worked on this job.'}
    </p>
  );
}

function ReportLinks({ job }: { job: Job }) {
  const { unit } = useUnit();
  const address = (kind: string) => `/api/jobs/${job.number}/report.${kind}?unit=${unit}`;
  return (
    <p className="report-links">
      <a className="btn btn-outline-primary" href={address('pdf')} target="_blank" rel="noreferrer">
        Report
      </a>
      <a className="btn btn-outline-primary" href={address('json')} download>
        The same as JSON
      </a>
    </p>
  );
}

function SignForm({ job }: { job: Job }) {
  const me = useQuery(meQuery);
  const lead = me.data?.role === 'lead';
  const [reason, setReason] = useState('');
  const [pin, setPin] = useState('');
  const sign = useChange('signature', job.number);
  const hard = job.blockers.filter((b) => !b.lead_may);
  const soft = job.blockers.filter((b) => b.lead_may);
  const may = hard.length === 0 && (soft.length === 0 || lead);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        sign.mutate({ id: newId(), reason, pin });
        setPin('');
      }}
    >
      {soft.length > 0 && hard.length === 0 && lead && (
        <TextField label="Reason" value={reason} maxLength={300} onChange={setReason} />
      )}
      {may && <PinField value={pin} onChange={setPin} />}
      <ProblemNote error={sign.error} onConfirm={sign.confirm} />
      <Button type="submit" size="lg" disabled={!may || sign.isPending}>
        Sign off{me.data ? ` as ${me.data.name}` : ''}
      </Button>
      <p className="quiet">Signed, the job can be read and not changed.</p>
    </form>
  );
}

/** Why it cannot be signed yet, by stage, each a way to where it is put right. */
function Blockers({ job }: { job: Job }) {
  return (
    <ul className="blockers">
      {job.blockers.map((b) => (
        <li key={b.sentence}>
          <Link to={`/bench/${job.number}/${b.stage}`}>
            <b>{STAGES.find(([key]) => key === b.stage)?.[1]}</b>
            <span>
              {b.sentence}
              {b.lead_may && <small> A lead may sign past this, with the reason in writing.</small>}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}

/** Verdicts that changed by something else than an act at the bench: nobody signs what they never saw. */
function Meanwhile({ job }: { job: Job }) {
  const read = useChange('meanwhile', job.number);
  if (job.signed || !job.meanwhile.length) return null;
  return (
    <div className="problem" role="alert">
      <strong>Changed since you last worked on this job:</strong>
      <ul>
        {job.meanwhile.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      <ProblemNote error={read.error} />
      <Button variant="outline-primary" disabled={read.isPending} onClick={() => read.mutate({})}>
        I have read this
      </Button>
    </div>
  );
}

const SHOWN = 30;

/** The newest lines of the log, and page by page all before them. */
function LogLines({ job }: { job: Job }) {
  const [pages, setPages] = useState<Event[]>([]);
  const cache = useQueryClient();
  // A signed job carries its whole log; at once its newest lines are shown.
  const [all, setAll] = useState(false);
  const newest = all ? job.log : job.log.slice(0, SHOWN);
  const lines = [...newest, ...pages.filter((e) => e.version < (newest.at(-1)?.version ?? 0))];
  const oldest = lines.at(-1)?.version ?? 1;
  const earlier = async () => {
    if (newest.length < job.log.length) {
      setAll(true);
      return;
    }
    const more = await cache.fetchQuery(logQuery(job.number, oldest));
    setPages((now) => [...now, ...more]);
  };
  return (
    <>
      <ul className="log">
        {lines.map((e) => (
          <li key={e.version}>
            <span>{e.what}</span>
            <small>
              {e.by}, {moment(e.at)}
            </small>
          </li>
        ))}
      </ul>
      {oldest > 1 && (
        <button type="button" className="fold" onClick={() => void earlier()}>
          {oldest - 1} earlier {oldest === 2 ? 'line' : 'lines'} ▾
        </button>
      )}
    </>
  );
}
