import type { Job, Tightening } from '../../api/client';
import { moment } from '../../app/time';
import { StrikeOut } from '../job/StrikeOut';

/** Every torque as logged: never erased, struck out with a reason. */
export function TorqueLog({ job, one }: { job: Job; one: Tightening }) {
  if (!one.log.length) return null;
  return (
    <table className="ruled torque-log">
      <caption>Log</caption>
      <thead>
        <tr>
          {one.count > 1 && <th scope="col">Pass, numbers</th>}
          <th scope="col">Set to</th>
          <th scope="col">At the nut</th>
          <th scope="col">Wrench</th>
          <th scope="col">Who</th>
        </tr>
      </thead>
      <tbody>
        {one.log.map((mark) => (
          <tr key={mark.id} className={mark.struck_reason ? 'struck' : ''}>
            {one.count > 1 && (
              <td>
                {mark.pass_number}: {mark.bolts.join(', ')}
              </td>
            )}
            <td>
              {mark.typed}
              {mark.adapter && <small>{mark.adapter}</small>}
            </td>
            <td className="number">{mark.at_nut}</td>
            <td>
              {mark.wrench}
              <small>
                {mark.certificate || 'no certificate'}
                {mark.overdue ? ', out of date' : ''}
              </small>
            </td>
            <td>
              {mark.by}, {moment(mark.at)}
              {mark.struck_reason ? (
                <em> Struck out: {mark.struck_reason}</em>
              ) : (
                <StrikeOut
                  job={job}
                  kind="torque"
                  record={mark.id}
                  what={`${one.fastener} ${mark.typed}`}
                  warns="What was tightened after it falls, too."
                />
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
