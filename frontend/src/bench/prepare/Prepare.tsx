import type { Job, Setting } from '../../api/client';
import { WorkingLink } from '../../app/WorkingLink';
import { capital } from '../../app/words';
import { TableMap } from '../../drawing/TableMap';
import { JobDetails } from './JobDetails';
import { Ready } from './Ready';
import { Steps } from '../steps/Steps';
import { NowAsked } from '../tasks/AskedTask';

/** Before anything is opened: what has to be known, what has to be on hand, the cautions, and the gap wanted. */
export function Prepare({ job }: { job: Job }) {
  return (
    <div className="stage two-columns">
      <div>
        <JobDetails job={job} />
        <NowAsked job={job} stage="prepare" />
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
      {job.setting && <Hot setting={job.setting} />}
      <TableRows job={job} />
      <p className="quiet">
        {job.sheet}. Viscosity as entered: {job.duty.viscosity_typed}.
      </p>
    </section>
  );
}

/** What is left of the gap when the pump is hot, and while it warms up. */
function Hot({ setting }: { setting: Setting }) {
  const { hot, warming } = setting;
  return (
    <>
      {hot && (
        <p className={hot.touches ? 'problem' : ''}>
          Predicted hot: {hot.text}
          {hot.touches && `. ${hot.sentence}`} <WorkingLink working={hot.working} />
        </p>
      )}
      {warming && (
        <p className={warming.touches ? 'notice' : 'quiet'}>
          {warming.sentence} <WorkingLink working={warming.working} />
        </p>
      )}
    </>
  );
}

function TableRows({ job }: { job: Job }) {
  return (
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
  );
}
