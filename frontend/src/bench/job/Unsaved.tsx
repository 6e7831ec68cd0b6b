import { useQueryClient } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { ApiError, type Job } from '../../api/client';
import { keep, settle, useWaiting, type Waiting } from '../../app/outbox';
import { ProblemNote } from '../../app/ProblemNote';
import { resend, type How, type Kind } from './useJob';

/** What the server asks about, or refused, and no form shows any more: said on every page of the job until it is settled. */
export function Unsaved({ job }: { job: Job }) {
  const [search] = useSearchParams();
  const asked = useWaiting().filter((w) => w.job === job.number && w.problem !== null);
  const readings = asked.filter((w) => w.kind === 'readings' && featureOf(w) !== search.get('gap'));
  const others = asked.filter((w) => w.kind !== 'readings');
  return (
    <>
      {readings.length > 0 && (
        <p className="passed-over" role="status">
          <b>Not saved:</b>{' '}
          {readings.map((w) => (
            <Link
              key={w.id}
              to={
                (w.change as { phase?: string }).phase === 'left'
                  ? `/bench/${job.number}/build`
                  : `/bench/${job.number}/inspect?gap=${featureOf(w)}`
              }
            >
              {w.said}{' '}
            </Link>
          ))}
        </p>
      )}
      {others.map((w) => (
        <Refused key={w.id} waiting={w} job={job} />
      ))}
    </>
  );
}

const featureOf = (w: Waiting) => (w.change as { feature?: string }).feature ?? '';

function Refused({ waiting, job }: { waiting: Waiting; job: Job }) {
  const cache = useQueryClient();
  const again = (meant: boolean) => {
    // From what is on screen now: what others did has been looked at.
    const { id, change, kind, person, said } = waiting;
    const how = { ...(waiting.how as How), meant };
    void keep({ id, change, kind, person, said, how, job: job.number, version: job.version });
    void resend(cache, job.number, kind as Kind, { id, change, how, version: job.version });
  };
  return (
    <div className="passed-over" role="status">
      <b>Not saved:</b> {waiting.said}.{' '}
      <button type="button" className="tool" onClick={() => again(false)}>
        Save it again
      </button>{' '}
      <button type="button" className="tool" onClick={() => void settle(waiting.id)}>
        Give it up
      </button>
      {waiting.problem && <ProblemNote error={new ApiError(waiting.problem)} onConfirm={() => again(true)} />}
    </div>
  );
}
