import { useQuery } from '@tanstack/react-query';
import { Link, Navigate, useParams } from 'react-router';
import { labelQuery } from '../api/fleetQueries';
import { ApiError } from '../api/client';
import { Loaded } from '../app/Loading';
import { day } from '../app/time';

/** What a label opens: the job its pump is on the bench for, else the pump. */
export function LabelPage() {
  const { code = '' } = useParams();
  const label = useQuery(labelQuery(code));
  if (label.error instanceof ApiError && label.error.details.code === 'not-found')
    return (
      <div className="blank page">
        No pump here has the label {code.toUpperCase()}. Was it made by another works?{' '}
        <Link to="/fleet">To the fleet</Link>
      </div>
    );
  return (
    <div className="page">
      <Loaded query={label} what={`the label ${code}`}>
        {({ tag, job, retired }) => {
          if (retired)
            return (
              <p className="notice">
                This label is on {tag}, which was retired {day(retired)}: it comes to the bench no more.{' '}
                <Link to={`/fleet/${encodeURIComponent(tag)}`}>What was done on it</Link>
              </p>
            );
          return (
            <Navigate replace to={job === null ? `/fleet/${encodeURIComponent(tag)}` : `/bench/${job}`} />
          );
        }}
      </Loaded>
    </div>
  );
}
