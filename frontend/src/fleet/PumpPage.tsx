import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link, useParams } from 'react-router';
import { client, newId, type PumpDetail } from '../api/client';
import { meQuery, pumpQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { day } from '../app/time';
import { grouped } from '../app/words';
import { useUnit } from '../app/unit';
import { WorkingLink } from '../app/WorkingLink';
import type { Entered } from '../app/works';
import { History } from './History';
import { Meter } from './Meter';
import { PumpForm } from './PumpForm';
import { Struckable } from './Struckable';
import { usePumpChange } from './usePumpChange';

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
  const me = useQuery(meQuery);
  const [editing, setEditing] = useState(false);
  const retire = usePumpChange(line.tag, (body: { retired: boolean } & Entered, at) =>
    client.POST('/api/pumps/{tag}/retire', { ...at, body }),
  );
  return (
    <>
      <div className="sheet-head">
        <h1>
          {line.tag} <small>{line.service}</small>
        </h1>
        {me.data?.role === 'lead' && !editing && (
          <>
            <Button variant="outline-primary" onClick={() => setEditing(true)}>
              Edit
            </Button>
            <Button
              variant="outline-secondary"
              disabled={retire.isPending}
              onClick={() => retire.mutate({ retired: !line.retired })}
            >
              {line.retired ? 'Take it back into the fleet' : 'Retire it'}
            </Button>
          </>
        )}
      </div>
      <p>
        {line.liquid}, {line.viscosity} at {line.temperature}, {line.pressure}, {line.speed}. {line.location}
        {page.wet && ', a wet place'}. <Link to={`/sheets/${line.slug}/latest`}>{line.sheet}</Link>, serial{' '}
        {line.serial}.
      </p>
      <ProblemNote error={retire.error} />
      {line.retired && (
        <p className="notice">
          Retired {day(line.retired)}: it comes to the bench no more. What was done on it stands.
        </p>
      )}
      {editing && <PumpForm page={page} onHide={() => setEditing(false)} />}
      <div className="two-columns">
        <Due page={page} />
        <Meter page={page} />
        <History page={page} lead={me.data?.role === 'lead'} />
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
          {page.meter.length || line.signed
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
      <Struckable
        caption="Oil and grease done"
        tag={line.tag}
        rows={page.lubricated.map((one) => ({
          ...one,
          said: `${one.name}, at ${grouped(one.hours)}\u00a0h`,
          when: day(one.at.slice(0, 10)),
        }))}
      />
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
  const save = usePumpChange(
    page.line.tag,
    (body: { id: string; name: string; hours: string } & Entered, at) =>
      client.POST('/api/pumps/{tag}/lubricated', { ...at, body }),
  );
  const identity = useRef(newId());
  return (
    <form
      className="panel"
      onSubmit={(event) => {
        event.preventDefault();
        if (!save.isPending) save.mutate({ id: identity.current, name, hours }, { onSuccess: onSaved });
      }}
    >
      <TextField
        short
        label={`${name}, at (h)`}
        keyboard="numeric"
        autoFocus
        value={hours}
        onChange={setHours}
      />
      <ProblemNote error={save.error} onConfirm={save.confirm} />
      <Button type="submit" disabled={save.isPending}>
        Save as done
      </Button>
    </form>
  );
}
