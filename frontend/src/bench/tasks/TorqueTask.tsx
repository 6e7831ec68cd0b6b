import type { Job, Tightening } from '../../api/client';
import { Lines } from '../../app/Lines';
import { BoltCircle } from '../../drawing/BoltCircle';
import { LogForm } from './TorqueForm';
import { TorqueLog } from './TorqueLog';

/** A line of the torque table: its order, the pass in hand, the wrench, and the log. */
export function TorqueTask({ job, view: one }: { job: Job; view: Tightening }) {
  const number = one.pass_number ?? one.passes.length;
  const pass = one.passes.find((p) => p.number === number);
  return (
    <section className="torque-work" aria-label={one.fastener}>
      <h2>{one.fastener}</h2>
      <p className="quiet">
        {one.torque}, {one.condition}
        {one.page ? ` · sheet page ${one.page}` : ''}
        {one.count > 1 ? ` · ${one.count} fasteners, ${one.passes.length} passes` : ''}
      </p>
      <div className={one.count > 1 ? 'bolts-and-form' : ''}>
        {one.count > 1 && <BoltCircle order={one.order} left={one.left} />}
        <div>
          {one.pass_number === null ? (
            <p className="all-done">All logged.</p>
          ) : (
            <>
              <p className="kicker">
                {one.count > 1
                  ? `Pass ${number} of ${one.passes.length}, ${pass?.done} of ${one.count} done`
                  : 'At the nut'}
              </p>
              <p className="headline">{pass?.torque}</p>
              {!job.signed && <LogForm key={one.pass_number} job={job} one={one} pass={one.pass_number} />}
            </>
          )}
        </div>
      </div>
      <Lines lines={one.lines} />
      <TorqueLog job={job} one={one} />
    </section>
  );
}
