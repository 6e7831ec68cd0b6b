import { useInfiniteQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { LifeLine, Overhaul } from '../api/client';
import { lifeQuery, overhaulsQuery } from '../api/fleetQueries';
import { Listed } from '../app/Listed';
import { day, moment } from '../app/time';
import { useUnit } from '../app/unit';

/** Signed overhauls, each with its sizes as found and as left. */
export function Overhauls({ tag }: { tag: string }) {
  const { unit } = useUnit();
  const overhauls = useInfiniteQuery(overhaulsQuery(tag, unit));
  return (
    <section aria-label="Overhauls">
      <h2>Overhauls</h2>
      <Listed query={overhauls} what="the overhauls" empty="No overhaul was signed yet.">
        {(lines) => lines.map((one, i) => <OneOverhaul key={one.number} one={one} open={i === 0} />)}
      </Listed>
    </section>
  );
}

/** Where nothing was measured: a gap that is set is never as it was found, once the pump was open. */
function leftSaid(size: Overhaul['sizes'][number]): string {
  if (size.is_set) return 'not measured';
  return size.changed ? 'new, not measured' : size.found ? 'as found' : '';
}

function OneOverhaul({ one, open }: { one: Overhaul; open: boolean }) {
  return (
    <details open={open} className="overhaul">
      <summary>
        <Link to={`/bench/${one.number}/close`}>Job {one.number}</Link>, {day(one.signed_at)}
        {one.hours && `, ${one.hours}`}: {one.reason}
        {one.gap && `; gap left at ${one.gap}`}
        {one.ended && <b>; void: it counts no more</b>}
      </summary>
      {one.sizes.length ? (
        <table className="ruled">
          <thead>
            <tr>
              <th scope="col">Size</th>
              <th scope="col">Found</th>
              <th scope="col">Left</th>
            </tr>
          </thead>
          <tbody>
            {one.sizes.map((size) => (
              <tr key={size.name}>
                <th scope="row">
                  {size.number ? `${size.number} ` : ''}
                  {size.name}
                </th>
                <td>{size.found || <span className="quiet">not measured</span>}</td>
                <td>
                  {size.left || leftSaid(size)}
                  {size.changed && size.left && <small>{size.is_set ? 'set' : 'new'}</small>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="quiet">No size was measured.</p>
      )}
    </details>
  );
}

const KINDS: Record<string, string> = {
  job: 'bench',
  meter: 'meter',
  service: 'service',
  place: 'place',
  part: 'part',
  note: 'note',
  paper: 'paper',
  sheet: 'sheet',
};

/** What was done to a pump, the newest first. */
export function Life({ tag }: { tag: string }) {
  const { unit } = useUnit();
  const life = useInfiniteQuery(lifeQuery(tag, unit));
  const at = `/api/pumps/${encodeURIComponent(tag)}/life`;
  return (
    <section aria-label="What was done">
      <div className="sheet-head">
        <h2>What was done to it</h2>
        <a className="btn btn-outline-primary" href={`${at}.csv?unit=${unit}`}>
          CSV
        </a>
        <a className="btn btn-outline-primary" href={`${at}.json?unit=${unit}`}>
          JSON
        </a>
      </div>
      <Listed query={life} what="what was done" empty="Nothing was done to it yet, by what is on record.">
        {(lines) => (
          <ol className="life">
            {lines.map((line, i) => (
              <Line key={i} line={line} />
            ))}
          </ol>
        )}
      </Listed>
    </section>
  );
}

function Line({ line }: { line: LifeLine }) {
  return (
    <li className={line.struck ? 'struck' : ''}>
      <time dateTime={line.on} title={moment(line.on)}>
        {day(line.on)}
      </time>
      <span className="life-kind">{KINDS[line.kind] ?? line.kind}</span>
      <span>
        {line.job === null ? line.said : <Link to={`/bench/${line.job}/close`}>{line.said}</Link>}
        {line.struck && <em> struck out: {line.struck}</em>}
        <small> {line.by}</small>
      </span>
    </li>
  );
}
