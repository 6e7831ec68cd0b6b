import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { JobLine } from '../../api/client';
import { jobsQuery } from '../../api/queries';
import { Loaded } from '../../app/Loading';
import { day, moment } from '../../app/time';
import { OpenJob } from './OpenJob';

/** What is on the bench, what was signed, and a new job. */
export function JobList() {
  const jobs = useQuery(jobsQuery);
  return (
    <div className="page two-columns">
      <Loaded query={jobs} what="the jobs">
        {(lines) => (
          <div>
            <h1>On the bench</h1>
            <Lines
              lines={lines.filter((l) => !l.signed_at && l.ended !== 'abandoned')}
              empty="Nothing on the bench. Open a job on the right."
            />
            <h2 className="mt-5">Signed</h2>
            <Lines lines={lines.filter((l) => l.signed_at)} empty="No job has been signed yet." />
            {lines.some((l) => l.ended === 'abandoned') && (
              <>
                <h2 className="mt-5">Abandoned</h2>
                <Lines lines={lines.filter((l) => l.ended === 'abandoned')} empty="" />
              </>
            )}
          </div>
        )}
      </Loaded>
      <OpenJob />
    </div>
  );
}

function Lines({ lines, empty }: { lines: JobLine[]; empty: string }) {
  if (!lines.length) return <p className="quiet">{empty}</p>;
  return (
    <ul className="lines">
      {lines.map((line) => (
        <li key={line.number}>
          <Link to={`/bench/${line.number}`}>
            <b>{line.pump}</b> <span>{line.service}</span>
            <small>
              Job {line.number}. {line.reason}. Opened by {line.opened_by}, {day(line.opened_at)}.
            </small>
            <small>
              {line.ended === 'void' && <b>Void. </b>}
              {line.signed_at ? `Signed ${moment(line.signed_at)}` : line.last}
            </small>
          </Link>
        </li>
      ))}
    </ul>
  );
}
