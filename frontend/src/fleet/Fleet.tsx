import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link } from 'react-router';
import type { PumpLine } from '../api/client';
import { meQuery, pumpsQuery, type PumpSort } from '../api/queries';
import { Listed } from '../app/Listed';
import { SearchRow } from '../app/SearchRow';
import { day } from '../app/time';
import { useUnit } from '../app/unit';
import { useSearch } from '../app/useSearch';
import { AddPump } from './AddPump';

/** One line a pump: its duty, its sheet, and its overhauls with the gap each was left with. */
export function Fleet() {
  const { unit } = useUnit();
  const { typed, setTyped, sought } = useSearch();
  const [sort, setSort] = useState<PumpSort>('tag');
  const [retired, setRetired] = useState(false);
  const pumps = useInfiniteQuery(pumpsQuery(unit, sought, sort, retired));
  const me = useQuery(meQuery);
  const isLead = me.data?.role === 'lead';
  const [adding, setAdding] = useState(false);
  return (
    <div className="page">
      <div className="sheet-head">
        <h1>Fleet</h1>
        <SearchRow
          label="Find by tag, service, place or serial"
          typed={typed}
          onType={setTyped}
          sort={sort}
          onSort={setSort}
          orders={{ tag: 'tag', location: 'place' }}
        />
        {isLead && !adding && (
          <Button variant="outline-primary" onClick={() => setAdding(true)}>
            Add a pump
          </Button>
        )}
      </div>
      {adding && <AddPump onHide={() => setAdding(false)} />}
      <label className="tick">
        <input type="checkbox" checked={retired} onChange={(event) => setRetired(event.target.checked)} />{' '}
        Retired pumps
      </label>
      <Listed
        query={pumps}
        what="the fleet"
        empty={
          retired
            ? 'No pump is retired.'
            : `No pump yet. ${isLead ? 'Add the first' : 'A lead adds them'}; its spec sheet has to be there first.`
        }
        sought={sought}
      >
        {(lines) => <Pumps lines={lines} />}
      </Listed>
    </div>
  );
}

function Pumps({ lines }: { lines: PumpLine[] }) {
  return (
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
        {pump.retired ? (
          <span className="quiet">retired {day(pump.retired)}</span>
        ) : pump.on_bench !== null ? (
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
  if (!pump.signed) return <span className="quiet">none recorded</span>;
  return (
    <>
      {pump.jobs.map((j) => (
        <Link key={j.number} to={`/bench/${j.number}/close`} className="past">
          {day(j.signed_at)}
          {j.gap ? `, gap ${j.gap} ${unit}` : ''}
          {j.ended === 'void' ? ', void' : ''}
        </Link>
      ))}
      {pump.signed > pump.jobs.length && (
        <Link to={`/bench?find=${encodeURIComponent(pump.tag)}`} className="past">
          all {pump.signed} overhauls
        </Link>
      )}
    </>
  );
}
