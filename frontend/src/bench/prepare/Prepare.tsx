import type { Job } from '../../api/client';
import { WorkingLink } from '../../app/WorkingLink';
import { capital } from '../../app/words';
import { TableMap } from '../../drawing/TableMap';
import { JobDetails } from './JobDetails';
import { Ready } from './Ready';
import { Steps } from '../steps/Steps';

/** Before anything is opened: what has to be known, what has to be on hand, the cautions, and the gap wanted. */
export function Prepare({ job }: { job: Job }) {
  return (
    <div className="stage two-columns">
      <div>
        <JobDetails job={job} />
        <Steps job={job} stage="prepare" />
      </div>
      <div>
        <Ready job={job} />
        <TheNumber job={job} />
      </div>
    </div>
  );
}

function TheNumber({ job }: { job: Job }) {
  return (
    <section aria-label="The number">
      <p className="kicker">{capital(job.setting?.name ?? 'gap')} wanted</p>
      <p className="big-number">{job.choice.target ?? 'no row matches'}</p>
      <p>
        {job.choice.sentence} {job.choice.over} <WorkingLink working={job.choice.working} />
      </p>
      {job.choice.hole && <p className="notice">{job.choice.hole}</p>}
      {job.setting?.hot && (
        <p className={job.setting.hot.touches ? 'problem' : ''}>
          Predicted hot: {job.setting.hot.text}
          {job.setting.hot.touches && `. ${job.setting.hot.sentence}`}{' '}
          <WorkingLink working={job.setting.hot.working} />
        </p>
      )}
      {job.setting?.warming && (
        <p className={job.setting.warming.touches ? 'notice' : 'quiet'}>
          {job.setting.warming.sentence} <WorkingLink working={job.setting.warming.working} />
        </p>
      )}
      <details>
        <summary>Clearance table for {job.duty.material}, as a map and in rows</summary>
        {job.choice.map && <TableMap map={job.choice.map} />}
        <table className="ruled">
          <thead>
            <tr>
              <th scope="col">Setting</th>
              <th scope="col">Viscosity</th>
              <th scope="col">Temperature</th>
              <th scope="col">Clearance and why</th>
            </tr>
          </thead>
          <tbody>
            {job.choice.candidates.map((c) => (
              <tr
                key={`${c.setting}-${c.viscosity}`}
                className={c.chosen ? 'chosen' : c.matches ? '' : 'faint'}
              >
                <th scope="row">{c.setting}</th>
                <td>{c.viscosity}</td>
                <td>{c.temperature}</td>
                <td>{c.reason}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
      <p className="quiet">
        {job.sheet}. Viscosity as entered: {job.duty.viscosity_typed}.
      </p>
    </section>
  );
}
