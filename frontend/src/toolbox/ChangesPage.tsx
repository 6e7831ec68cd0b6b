import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { TrailLine } from '../api/client';
import { peopleQuery, trailQuery, type TrailAsked } from '../api/queries';
import { DayField } from '../app/DayField';
import { Listed } from '../app/Listed';
import { TextField } from '../app/TextField';
import { day, moment } from '../app/time';
import { useSearch } from '../app/useSearch';

/** For a lead: every change to everything, who made it and when, the old value and the new. */
export function ChangesPage() {
  const [params] = useSearchParams();
  const [chosen, setChosen] = useState<TrailAsked>({ about: params.get('about') ?? '' });
  const { typed, setTyped, sought } = useSearch();
  const put = (more: TrailAsked) => setChosen((now) => ({ ...now, ...more }));
  const asked = given({ ...chosen, q: sought });
  const changes = useInfiniteQuery(trailQuery(asked));
  return (
    <div className="page">
      <div className="sheet-head">
        <h1>Every change</h1>
        <a className="btn btn-outline-primary" href={`/api/changes.csv?${new URLSearchParams({ ...asked })}`}>
          Take these out as CSV
        </a>
      </div>
      <div className="search-row">
        <TextField
          label="Find by job 12, pump P-3, person, reading, or a value"
          value={typed}
          maxLength={80}
          onChange={setTyped}
        />
        <Narrowed chosen={chosen} put={put} />
      </div>
      {chosen.about && (
        <p>
          Of <b>{chosen.about}</b> alone.{' '}
          <button type="button" className="take-back" onClick={() => put({ about: '' })}>
            of everything
          </button>
        </p>
      )}
      <Listed query={changes} what="the changes" empty="Nothing was changed." sought={sought}>
        {(lines) => <Changes lines={lines} onAbout={(about) => put({ about })} />}
      </Listed>
      <p className="quiet">
        Kept for good, and written by the database itself. Words are looked for in the newest 20,000 changes
        of what the rest finds; typing of a sheet counts once it is kept.
      </p>
    </div>
  );
}

/** What is asked for: nothing that is empty. */
const given = (asked: TrailAsked): TrailAsked =>
  Object.fromEntries(Object.entries(asked).filter(([, value]) => value));

interface NarrowedProps {
  chosen: TrailAsked;
  put: (more: TrailAsked) => void;
}

function Narrowed({ chosen, put }: NarrowedProps) {
  const people = useQuery(peopleQuery);
  return (
    <>
      <label className="field">
        Who
        <select value={chosen.who ?? ''} onChange={(event) => put({ who: event.target.value })}>
          <option value="">anybody</option>
          <option value="server">the server</option>
          {people.data?.people.map((one) => (
            <option key={one.username} value={one.username}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      <label className="field">
        What was done
        <select
          value={chosen.act ?? ''}
          onChange={(event) => put({ act: event.target.value as NonNullable<TrailAsked['act']> })}
        >
          <option value="">anything</option>
          <option value="added">added</option>
          <option value="changed">changed</option>
          <option value="removed">removed</option>
        </select>
      </label>
      <DayField label="From" value={chosen.since ?? ''} onChange={(since) => put({ since })} />
      <DayField label="To" value={chosen.until ?? ''} onChange={(until) => put({ until })} />
    </>
  );
}

function Changes({ lines, onAbout }: { lines: TrailLine[]; onAbout: (about: string) => void }) {
  return (
    <table className="ruled wide trail">
      <thead>
        <tr>
          <th scope="col">When</th>
          <th scope="col">Who</th>
          <th scope="col">Of</th>
          <th scope="col">What</th>
          <th scope="col">Old and new</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((line) => (
          <tr key={line.id}>
            <td>
              {day(line.at)} <small>{moment(line.at).split(', ').at(-1)}</small>
            </td>
            <td>{line.who === 'server' ? 'the server' : line.who}</td>
            <td>
              <button type="button" className="take-back" onClick={() => onAbout(line.about)}>
                {line.about}
              </button>
            </td>
            <td>
              {line.kind} {line.act}
            </td>
            <td>
              <Fields line={line} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Whether there is an old value and a new: of the whole works there is only what it was changed by. */
const hasBoth = ({ act, kind }: TrailLine): boolean => act === 'changed' && kind !== 'works';

/** A few fields at once; the rest when it is asked for. */
function Fields({ line }: { line: TrailLine }) {
  const [all, setAll] = useState(false);
  const shown = all ? line.fields : line.fields.slice(0, FEW);
  return (
    <>
      <ul className="old-and-new">
        {shown.map(({ field, was, now }) => (
          <li key={field}>
            {field}: {hasBoth(line) ? `${was || 'nothing'} → ${now || 'nothing'}` : was || now}
          </li>
        ))}
      </ul>
      {line.fields.length > FEW && (
        <button type="button" className="take-back" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? 'fewer' : `${line.fields.length - FEW} more`}
        </button>
      )}
    </>
  );
}

const FEW = 6;
