import { lazy, Suspense, useState } from 'react';
import type { Job } from '../../api/client';

const DetailsForm = lazy(async () => ({ default: (await import('./DetailsForm')).DetailsForm }));

/** What has to be known before anything is opened: in one line when it is, a form when it is not. */
export function JobDetails({ job }: { job: Job }) {
  const { details } = job;
  const missing = details.missing.length > 0;
  const [whole, setWhole] = useState(false);
  const open = whole || (missing && !job.signed);
  return (
    <section className="job-details" aria-label="What is known">
      <p>
        {missing ? (
          <b className="warning">Not known yet: {details.missing.join(', ')}.</b>
        ) : (
          <>
            {details.symptoms.find((s) => s.key === details.symptom)?.name ?? details.reason} ·{' '}
            {details.liquid}
            {details.hazards ? ` (${details.hazards})` : ''} · {details.hours_run} h · {details.place}
            {details.room ? `, ${details.room}` : ''}
          </>
        )}{' '}
        {!job.signed && (
          <button
            type="button"
            className="working-link"
            aria-expanded={whole}
            onClick={() => setWhole(!whole)}
          >
            {whole ? 'fold' : 'all that is known'}
          </button>
        )}
      </p>
      {open && (
        <Suspense>
          <DetailsForm key={details.missing.join()} job={job} whole={whole} onSaved={() => setWhole(false)} />
        </Suspense>
      )}
    </section>
  );
}
