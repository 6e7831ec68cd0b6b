import { useState } from 'react';
import type { Coach, Job } from '../../api/client';
import { RunInPlot } from '../../drawing/RunInPlot';
import { StrikeOut } from '../job/StrikeOut';
import { NoteForm } from './RunInForm';

/** The coach for packing: what to do next, drops counted by tapping, the box's temperature, and the log drawn. */
export function RunInTask({ job, view: coach }: { job: Job; view: Coach }) {
  return (
    <section aria-label="Run-in of the packing">
      <div className={`coach says-${coach.say.replace(' ', '-')}`} aria-live="polite">
        <p className="step-text">{coach.headline}</p>
        <p>{coach.why}</p>
      </div>
      {!job.signed && <NoteForm job={job} coach={coach} />}
      <RunInPlot coach={coach} />
      <Log job={job} coach={coach} />
    </section>
  );
}

const SHOWN = 6;

function Log({ job, coach }: { job: Job; coach: Coach }) {
  const [all, setAll] = useState(false);
  if (!coach.notes.length) return null;
  const shown = all ? coach.notes : coach.notes.slice(-SHOWN);
  return (
    <>
      <table className="ruled">
        <caption className={shown.length < coach.notes.length ? '' : 'visually-hidden'}>
          {shown.length < coach.notes.length ? (
            <button type="button" className="fold" onClick={() => setAll(true)}>
              {coach.notes.length - shown.length} earlier lines ▾
            </button>
          ) : (
            'Log of the run-in'
          )}
        </caption>
        <thead>
          <tr>
            <th scope="col">Minute</th>
            <th scope="col">Drops a minute</th>
            <th scope="col">Box</th>
            <th scope="col">Gland</th>
            <th scope="col">Who</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((n) => (
            <tr key={n.number}>
              <td>{n.minute.toFixed(0)}</td>
              <td>{n.drops_text || '–'}</td>
              <td>{n.box || '–'}</td>
              <td>{n.turn || '–'}</td>
              <td>
                {n.by}{' '}
                <StrikeOut
                  job={job}
                  kind="run-in"
                  record={n.id}
                  what={`line at minute ${n.minute.toFixed(0)}`}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
