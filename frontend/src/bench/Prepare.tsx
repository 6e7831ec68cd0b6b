import type { Job } from '../api/client';
import { WorkingLink } from '../app/WorkingLink';
import { Steps } from './Steps';

/** Before anything is opened: what the gap will have to be, and the cautions. */
export function Prepare({ job }: { job: Job }) {
  return (
    <div className="stage two-columns">
      <Steps job={job} stage="prepare" />
      <section aria-label="The number">
        <p className="kicker">End clearance wanted</p>
        <p className="big-number">{job.choice.target ?? 'no row matches'}</p>
        <p>
          {job.choice.sentence} <WorkingLink working={job.choice.working} />
        </p>
        {job.setting?.hot && (
          <p className={job.setting.hot.touches ? 'problem' : ''}>
            Predicted hot: {job.setting.hot.text} <WorkingLink working={job.setting.hot.working} />
          </p>
        )}
        <table className="ruled">
          <caption>Clearance table for {job.duty.material}</caption>
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
        <p className="quiet">
          {job.sheet}. Came in{job.hours_run !== null ? ` at ${job.hours_run} h` : ''}: {job.reason}.
          Viscosity as entered: {job.duty.viscosity_typed}.
        </p>
      </section>
    </div>
  );
}
