import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link, useParams } from 'react-router';
import { client, newId, unwrap, type PumpDetail } from '../api/client';
import { pumpQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import { DayField } from '../app/DayField';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { day } from '../app/time';
import { grouped } from '../app/words';
import { useUnit } from '../app/unit';
import { WorkingLink } from '../app/WorkingLink';

/** One pump: its duty, what oil and grease fall due by its meter, and where to record both. */
export function PumpPage() {
  const { tag = '' } = useParams();
  const { unit } = useUnit();
  const pump = useQuery(pumpQuery(tag, unit));
  return (
    <div className="page">
      <Loaded query={pump} what={`pump ${tag}`}>
        {(page) => <Whole page={page} />}
      </Loaded>
    </div>
  );
}

function Whole({ page }: { page: PumpDetail }) {
  const { line } = page;
  return (
    <>
      <h1>
        {line.tag} <small>{line.service}</small>
      </h1>
      <p>
        {line.liquid}, {line.viscosity} at {line.temperature}, {line.pressure}, {line.speed}. {line.location}
        {page.wet && ', a wet place'}. <Link to={`/sheets/${line.slug}/latest`}>{line.sheet}</Link>, serial{' '}
        {line.serial}.
      </p>
      <div className="two-columns">
        <Due page={page} />
        <Meter page={page} />
      </div>
    </>
  );
}

function Due({ page }: { page: PumpDetail }) {
  const { line, due, visits } = page;
  const [doing, setDoing] = useState('');
  return (
    <section aria-label="Oil and grease">
      <h2>Oil and grease</h2>
      {due.length === 0 && (
        <p className="quiet">
          {page.meter.length || line.jobs.length
            ? 'The sheet asks for no oil or grease by hours.'
            : 'Nothing can fall due before the meter was read.'}
        </p>
      )}
      <ul className="lines due">
        {due.map((one) => (
          <li key={one.name}>
            <div className={one.late ? 'late' : ''}>
              <p>
                <b>{one.late ? 'now' : one.day ? day(one.day) : 'day not known'}</b> {one.sentence}{' '}
                <WorkingLink working={one.working} />
              </p>
              <button
                type="button"
                className="tool"
                onClick={() => setDoing(doing === one.name ? '' : one.name)}
              >
                Done
              </button>
            </div>
            {doing === one.name && <DoneForm page={page} name={one.name} onSaved={() => setDoing('')} />}
          </li>
        ))}
      </ul>
      {visits.map((visit) => (
        <p key={visit} className="quiet">
          {visit}.
        </p>
      ))}
      {due.some((one) => one.day) && (
        <a className="btn btn-outline-primary" href={`/api/pumps/${encodeURIComponent(line.tag)}/due.ics`}>
          For a calendar (.ics)
        </a>
      )}
    </section>
  );
}

interface DoneProps {
  page: PumpDetail;
  name: string;
  onSaved: () => void;
}

function DoneForm({ page, name, onSaved }: DoneProps) {
  const [hours, setHours] = useState('');
  const save = usePumpChange(page.line.tag, (body: { id: string; hours: string }, at) =>
    client.POST('/api/pumps/{tag}/lubricated', { ...at, body: { ...body, name } }),
  );
  const identity = useRef(newId());
  return (
    <form
      className="panel"
      onSubmit={(event) => {
        event.preventDefault();
        if (!save.isPending) save.mutate({ id: identity.current, hours }, { onSuccess: onSaved });
      }}
    >
      <TextField
        short
        label={`${name}, at hours`}
        keyboard="numeric"
        autoFocus
        value={hours}
        onChange={setHours}
      />
      <ProblemNote error={save.error} />
      <Button type="submit" disabled={save.isPending}>
        Save as done
      </Button>
    </form>
  );
}

function Meter({ page }: { page: PumpDetail }) {
  const [hours, setHours] = useState('');
  const [on, setOn] = useState('');
  const identity = useRef(newId());
  const save = usePumpChange(page.line.tag, (body: { id: string; hours: string; day: string }, at) =>
    client.POST('/api/pumps/{tag}/meter', { ...at, body }),
  );
  return (
    <section aria-label="Hours meter">
      <h2>Hours meter {page.rate && <small>{page.rate}</small>}</h2>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (save.isPending) return;
          save.mutate(
            { id: identity.current, hours, day: on },
            {
              onSuccess: () => {
                identity.current = newId();
                setHours('');
                setOn('');
              },
            },
          );
        }}
      >
        <div className="try-check">
          <TextField short label="Reads (h)" keyboard="numeric" value={hours} onChange={setHours} />
          <DayField label="Day, if not today" value={on} onChange={setOn} />
          <Button type="submit" disabled={save.isPending}>
            Save reading
          </Button>
        </div>
        <ProblemNote error={save.error} />
      </form>
      <table className="ruled">
        <caption className="visually-hidden">Readings between overhauls</caption>
        <tbody>
          {page.meter.map((m) => (
            <tr key={`${m.day} ${m.hours}`}>
              <th scope="row">{grouped(m.hours)}&nbsp;h</th>
              <td>{day(m.day)}</td>
              <td>{m.by}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

interface At {
  params: { path: { tag: string }; query: { unit: 'mm' | 'in' } };
}

/** A change to a pump, after which its page is read anew. */
function usePumpChange<T>(
  tag: string,
  send: (body: T, at: At) => Promise<{ data?: PumpDetail; error?: unknown; response: Response }>,
) {
  const { unit } = useUnit();
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (body: T) => unwrap(send(body, { params: { path: { tag }, query: { unit } } })),
    // Read anew, not kept from the answer: the unit may have been switched while it was on its way.
    onSuccess: () => cache.invalidateQueries({ queryKey: ['pump', tag] }),
  });
}
