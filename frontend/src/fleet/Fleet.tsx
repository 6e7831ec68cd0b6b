import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { PumpLine } from '../api/client';
import { pumpsQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import { day } from '../app/time';
import { useUnit } from '../app/unit';

/** One line a pump: its duty, its sheet, and its overhauls with the gap each was left with. */
export function Fleet() {
  const { unit } = useUnit();
  const pumps = useQuery(pumpsQuery(unit));
  return (
    <div className="page">
      <h1>Fleet</h1>
      <Loaded
        query={pumps}
        what="the fleet"
        empty="No pump yet. A lead adds them through the API; the sheet has to be there first."
      >
        {(lines) => (
          <table className="ruled wide">
            <thead>
              <tr>
                <th scope="col">Pump</th>
                <th scope="col">Sheet</th>
                <th scope="col">Duty</th>
                <th scope="col">Overhauls</th>
                <th scope="col">Now</th>
              </tr>
            </thead>
            <tbody>
              {lines.map((pump) => (
                <PumpRow key={pump.tag} pump={pump} />
              ))}
            </tbody>
          </table>
        )}
      </Loaded>
    </div>
  );
}

function PumpRow({ pump }: { pump: PumpLine }) {
  return (
    <tr>
      <th scope="row">
        <Link to={`/fleet/${encodeURIComponent(pump.tag)}`}>{pump.tag}</Link>
        <small>
          {pump.service}, {pump.location}
        </small>
      </th>
      <td>
        <Link to={`/sheets/${pump.slug}/latest`}>{pump.sheet}</Link>
        <small>
          serial {pump.serial}, {pump.material}
        </small>
      </td>
      <td>
        {pump.liquid}, {pump.viscosity} at {pump.temperature}
        <small>
          {pump.pressure}, {pump.speed}
        </small>
      </td>
      <td>
        <Overhauls pump={pump} />
      </td>
      <td>
        {pump.on_bench !== null ? (
          <Link className="btn btn-outline-primary" to={`/bench/${pump.on_bench}`}>
            On the bench
          </Link>
        ) : (
          <Link className="btn btn-outline-primary" to={`/bench?pump=${pump.tag}`}>
            Open a job
          </Link>
        )}
      </td>
    </tr>
  );
}

/** Signed overhauls, each with the gap it was left with. */
function Overhauls({ pump }: { pump: PumpLine }) {
  const { unit } = useUnit();
  const signed = pump.jobs.filter((j) => j.signed_at);
  if (!signed.length) return <span className="quiet">none recorded</span>;
  return signed.map((j) => (
    <Link key={j.number} to={`/bench/${j.number}/close`} className="past">
      {j.signed_at ? day(j.signed_at) : ''}
      {j.gap ? `, gap ${j.gap} ${unit}` : ''}
    </Link>
  ));
}
