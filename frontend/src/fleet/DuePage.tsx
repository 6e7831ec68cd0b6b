import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { DueAhead, DueLine } from '../api/client';
import { aheadQuery, dueQuery } from '../api/fleetQueries';
import { Listed } from '../app/Listed';
import { Loaded } from '../app/Loading';
import { TextField } from '../app/TextField';
import { day, dayOnly } from '../app/time';
import { KINDS, useDueAsked, useWordsIn } from './dueAsked';
import { FleetNav } from './FleetNav';
import { Feeds } from './Feeds';

/** Twelve weeks ahead, as a ribbon and as a list. */
export function DuePage() {
  const { asked, put } = useDueAsked();
  const { undated, ...counted } = asked;
  const ahead = useQuery(aheadQuery(counted));
  const list = useInfiniteQuery(dueQuery(asked));
  return (
    <div className="page">
      <FleetNav />
      <Head asked={asked} put={put} />
      <Loaded query={ahead} what="the weeks ahead">
        {(data) => <Ribbon ahead={data} />}
      </Loaded>
      <Narrowed asked={asked} put={put} />
      <Listed
        query={list}
        what="what falls due"
        empty={
          undated
            ? 'Everything that falls due has a day.'
            : 'Nothing falls due in the next twelve weeks, by what is on record.'
        }
        sought={asked.q ?? ''}
      >
        {(lines) => <Lines lines={lines} />}
      </Listed>
      <Feeds />
    </div>
  );
}

type Asked = Pick<ReturnType<typeof useDueAsked>, 'asked' | 'put'>;

/** Words to find lines by, and the same lines as a table or on paper. */
function Head({ asked, put }: Asked) {
  const { typed, setTyped } = useWordsIn(asked.q ?? '', put);
  const file = new URLSearchParams(Object.entries(asked).map(([name, value]) => [name, String(value)]));
  return (
    <div className="sheet-head">
      <h1>What falls due</h1>
      <div className="search-row">
        <TextField
          label="Find by pump, place, sheet, gauge"
          value={typed}
          maxLength={80}
          onChange={setTyped}
        />
      </div>
      <a className="btn btn-outline-primary" href={`/api/due.csv?${file.toString()}`}>
        Table (CSV)
      </a>
      <a
        className="btn btn-outline-primary"
        href={`/api/due.pdf?${file.toString()}`}
        target="_blank"
        rel="noreferrer"
      >
        Print (PDF)
      </a>
    </div>
  );
}

function Narrowed({ asked, put }: Asked) {
  return (
    <div className="narrowed" role="group" aria-label="Show only">
      {KINDS.map(([key, name]) => (
        <label key={key} className="tick">
          <input
            type="checkbox"
            checked={asked.kind === key}
            onChange={(event) => put('kind', event.target.checked ? key : '')}
          />{' '}
          {name}
        </label>
      ))}
      <label className="tick">
        <input
          type="checkbox"
          checked={asked.undated === true}
          onChange={(event) => put('undated', event.target.checked ? 'true' : '')}
        />{' '}
        Day not known
      </label>
    </div>
  );
}

const sum = (counts: { count: number }[]) => counts.reduce((all, one) => all + one.count, 0);
const said = (counts: { kind: string; count: number }[]) =>
  KINDS.flatMap(([key, , word]) => {
    const count = counts.find((one) => one.kind === key)?.count;
    return count ? [`${count} ${word}`] : [];
  }).join(', ');

/** Twelve weeks as a ribbon: a block of marks a week, one more to the left for what is past due. */
function Ribbon({ ahead }: { ahead: DueAhead }) {
  const most = Math.max(...ahead.weeks.map((week) => sum(week.counts)), 1);
  return (
    <>
      <ol className="weeks" aria-label="Twelve weeks ahead">
        <li
          className={sum(ahead.late) ? 'late' : ''}
          aria-label={`Past due: ${said(ahead.late) || 'nothing'}`}
        >
          <b>{sum(ahead.late)}</b>
          <small>past due</small>
        </li>
        {ahead.weeks.map((week, i) => (
          <li
            key={week.begins}
            aria-label={`${i ? 'Week of' : 'This week, from'} ${day(week.begins)}: ${said(week.counts) || 'nothing'}`}
            title={said(week.counts) || 'nothing'}
          >
            <span className="week-marks" style={{ height: `${(60 * sum(week.counts)) / most}px` }}>
              {KINDS.map(([key]) => {
                const count = week.counts.find((one) => one.kind === key)?.count ?? 0;
                return (
                  count > 0 && <span key={key} className={`week-mark ${key}`} style={{ flexGrow: count }} />
                );
              })}
            </span>
            <b>{sum(week.counts) || ''}</b>
            <small>{dayOnly(week.begins)}</small>
          </li>
        ))}
      </ol>
      <p className="quiet week-legend">
        {KINDS.map(([key, name]) => (
          <span key={key}>
            <span className={`week-mark ${key}`} aria-hidden="true" /> {name.toLowerCase()}
          </span>
        ))}
        {sum(ahead.undated) > 0 && <span>day not known: {said(ahead.undated)}</span>}
      </p>
      {ahead.behind > 0 && (
        <p className="notice" role="status">
          {ahead.behind === 1 ? 'One pump or gauge is' : `${ahead.behind} pumps and gauges are`} being worked
          out anew: what falls due of {ahead.behind === 1 ? 'it' : 'them'} may be missing or old.
        </p>
      )}
    </>
  );
}

function Lines({ lines }: { lines: DueLine[] }) {
  return (
    <table className="ruled due-list">
      <thead>
        <tr>
          <th scope="col">Day</th>
          <th scope="col">Pump or gauge</th>
          <th scope="col">What</th>
          <th scope="col">Where</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((line, i) => (
          <tr key={i} className={line.late ? 'late' : ''}>
            <td className="number">
              {line.day ? day(line.day) : 'not known'}
              {line.late && <small className="late-word">past due</small>}
            </td>
            <th scope="row">
              {line.pump ? (
                <Link to={`/fleet/${encodeURIComponent(line.pump)}`}>{line.pump}</Link>
              ) : (
                <Link to="/toolbox">{line.gauge}</Link>
              )}
              <small>{line.service}</small>
            </th>
            <td>
              <span className={`week-mark ${line.kind}`} aria-hidden="true" /> {line.name}
              <small>{line.said}</small>
            </td>
            <td>
              {line.place}
              {line.lent && <small>on loan</small>}
              {line.on_bench !== null && (
                <small>
                  <Link to={`/bench/${line.on_bench}`}>on the bench</Link>
                </small>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
