import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link } from 'react-router';
import { newId, type Job } from '../api/client';
import { meQuery } from '../api/queries';
import { ProblemNote } from '../app/ProblemNote';
import { moment } from '../app/time';
import { useUnit } from '../app/unit';
import { GapSummary } from './GapSummary';
import { useChange } from './useJob';

/** What is still open, the signature, the report. */
export function Close({ job }: { job: Job }) {
  const { unit } = useUnit();
  return (
    <div className="stage two-columns">
      <section aria-label="Signature">
        {job.signed ? (
          <>
            <h2>Signed</h2>
            <p className="lead">
              By {job.signed.by}, {moment(job.signed.at)}.
            </p>
            {job.signed.reason && <p>Past what was open, because: {job.signed.reason}</p>}
          </>
        ) : (
          <SignForm job={job} />
        )}
        <p className="report-links">
          <a
            className="btn btn-outline-primary"
            href={`/api/jobs/${job.number}/report.pdf?unit=${unit}`}
            target="_blank"
            rel="noreferrer"
          >
            Report, one page
          </a>
          <a
            className="btn btn-outline-primary"
            href={`/api/jobs/${job.number}/report.json?unit=${unit}`}
            download
          >
            The same as JSON
          </a>
        </p>
      </section>
      <section aria-label="As left">
        <p className="kicker">End clearance as left</p>
        <GapSummary job={job} />
        <details>
          <summary>Log of the job</summary>
          <ul className="log">
            {job.log.map((e) => (
              <li key={e.version}>
                <span>{e.what}</span>
                <small>
                  {e.by}, {moment(e.at)}
                </small>
              </li>
            ))}
          </ul>
        </details>
      </section>
    </div>
  );
}

function SignForm({ job }: { job: Job }) {
  const me = useQuery(meQuery);
  const lead = me.data?.role === 'lead';
  const [reason, setReason] = useState('');
  const sign = useChange('signature', job.number);
  const hard = job.blockers.filter((b) => !b.lead_may);
  const soft = job.blockers.filter((b) => b.lead_may);
  const may = hard.length === 0 && (soft.length === 0 || lead);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        sign.mutate({ id: newId(), reason });
      }}
    >
      <h2>{job.blockers.length ? 'Still open' : 'Nothing is open'}</h2>
      {job.blockers.length === 0 && <p>Found and left, the gap, and the hold points are all there.</p>}
      <Blockers job={job} of={hard} heading="" />
      <Blockers job={job} of={soft} heading="A lead may sign past these, with the reason in writing:" />
      {soft.length > 0 && hard.length === 0 && lead && (
        <label className="field">
          Reason
          <input type="text" value={reason} maxLength={300} onChange={(e) => setReason(e.target.value)} />
        </label>
      )}
      <ProblemNote error={sign.error} />
      <Button type="submit" size="lg" disabled={!may || sign.isPending}>
        Sign off{me.data ? ` as ${me.data.name}` : ''}
      </Button>
      <p className="quiet">Signed, the job can be read and not changed.</p>
    </form>
  );
}

function Blockers({ job, of, heading }: { job: Job; of: Job['blockers']; heading: string }) {
  if (!of.length) return null;
  return (
    <>
      {heading && <p>{heading}</p>}
      <ul className="blockers">
        {of.map((b) => (
          <li key={b.sentence}>
            <Link to={`/bench/${job.number}/${b.stage}`}>{b.sentence}</Link>
          </li>
        ))}
      </ul>
    </>
  );
}
