import { useState } from 'react';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import type { JobLine } from '../../api/client';
import { jobsQuery, startQuery } from '../../api/queries';
import { Listed } from '../../app/Listed';
import { TextField } from '../../app/TextField';
import { day, moment } from '../../app/time';
import { useSearch } from '../../app/useSearch';
import { OpenJob } from './OpenJob';

/** What is on the bench, what was signed, and a new job. */
export function JobList() {
  const [search] = useSearchParams();
  const { typed, setTyped, sought } = useSearch(search.get('find') ?? '');
  return (
    <div className="page two-columns">
      <div>
        <div className="sheet-head">
          <h1>On the bench</h1>
          <TextField
            label="Find a job by pump, place or number"
            value={typed}
            maxLength={80}
            onChange={setTyped}
          />
        </div>
        <StartList />
        <Jobs state="open" sought={sought} empty="Nothing on the bench. Open a job on the right." />
        <Jobs state="signed" sought={sought} heading="Signed" empty="No job has been signed yet." />
        <Jobs state="abandoned" sought={sought} heading="Abandoned" empty="" />
      </div>
      <OpenJob />
    </div>
  );
}

const NEEDED = [
  {
    has: 'people',
    to: '/me',
    words: 'People',
    why: 'whoever works at the bench signs with a name of their own',
  },
  { has: 'sheet', to: '/sheets', words: 'A spec sheet', why: 'what the manual prints, as a file' },
  { has: 'pump', to: '/fleet', words: 'A pump', why: 'its tag, its sheet, what it pumps' },
  {
    has: 'gauge',
    to: '/toolbox',
    words: 'A gauge',
    why: 'with its certificate: without one nothing is measured',
  },
] as const;

/** In a works that begins: what is still wanted before the first job, each a press away. */
function StartList() {
  const { data } = useQuery(startQuery);
  const [skipped, setSkipped] = useState(() => localStorage.getItem('skipped') ?? '');
  const lacking = data ? NEEDED.filter((one) => !data[one.has] && !skipped.includes(one.has)) : [];
  const skip = (has: string) => {
    localStorage.setItem('skipped', `${skipped} ${has}`);
    setSkipped(`${skipped} ${has}`);
  };
  if (!lacking.length) return null;
  return (
    <section aria-label="Before the first job" className="start-list">
      <h2>Before the first job</h2>
      <ul className="lines">
        {lacking.map((one) => (
          <li key={one.has}>
            <Link to={one.to}>
              <b>{one.words}</b> <span>{one.why}</span>
            </Link>
            <button
              type="button"
              className="take-back"
              aria-label={`Skip: ${one.words}`}
              onClick={() => skip(one.has)}
            >
              skip
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface Props {
  state: 'open' | 'signed' | 'abandoned';
  sought: string;
  heading?: string;
  /** Said where there is none; without it nothing is shown then. */
  empty: string;
}

function Jobs({ state, sought, heading, empty }: Props) {
  const jobs = useInfiniteQuery(jobsQuery(state, sought));
  if (!empty && !jobs.data?.pages[0]?.lines.length) return null;
  return (
    <>
      {heading && <h2 className="apart">{heading}</h2>}
      <Listed query={jobs} what={`the ${state} jobs`} empty={empty} sought={sought}>
        {(lines) => (
          <ul className="lines">
            {lines.map((line) => (
              <li key={line.number}>
                <Line line={line} />
              </li>
            ))}
          </ul>
        )}
      </Listed>
    </>
  );
}

function Line({ line }: { line: JobLine }) {
  return (
    <Link to={`/bench/${line.number}`}>
      <b>{line.pump}</b> <span>{line.service}</span>
      <small>
        Job {line.number}. {line.reason}. Opened by {line.opened_by}, {day(line.opened_at)}.
      </small>
      <small>
        {line.ended === 'void' && <b>Void. </b>}
        {line.signed_at ? `Signed ${moment(line.signed_at)}` : line.last}
      </small>
    </Link>
  );
}
