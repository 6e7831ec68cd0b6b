import { useState } from 'react';
import type { Job, Step } from '../../api/client';
import { moment } from '../../app/time';
import { Photos } from '../job/Photos';
import { StrikeOut } from '../job/StrikeOut';
import { PresentStep } from './PresentStep';

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
