import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link } from 'react-router';
import { client, newId, type PumpDetail } from '../api/client';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { day } from '../app/time';
import { grouped } from '../app/words';
import { WorkingLink } from '../app/WorkingLink';
import type { Entered } from '../app/works';
import { Struckable } from './Struckable';
import { usePumpChange } from './usePumpChange';

/** What comes next at a pump: its inspection with the reason, what to order for it, and work by running hours. */
export function PumpNext({ page }: { page: PumpDetail }) {
  return (
    <section aria-label="What comes next">
      <h2>What comes next</h2>
      <Inspection page={page} />
      <Service page={page} />
      {page.visits.map((visit) => (
        <p key={visit} className="quiet">
          {visit}.
        </p>
      ))}
      {(page.coming?.day ?? page.due.some((one) => one.day)) && (
        <a
          className="btn btn-outline-primary"
          href={`/api/pumps/${encodeURIComponent(page.line.tag)}/due.ics`}
        >
          For a calendar (.ics)
        </a>
      )}
    </section>
  );
}

function Inspection({ page }: { page: PumpDetail }) {
  const { line, coming } = page;
  if (line.retired) return <p className="quiet">It is retired: nothing falls due of it any more.</p>;
  if (line.on_bench !== null)
    return (
      <p>
        It is on the bench now: <Link to={`/bench/${line.on_bench}`}>job {line.on_bench}</Link>.
      </p>
    );
  if (!coming)
    return (
      <p className="quiet">
        {line.hours
          ? 'When to open it next is not known: no interval between overhauls is kept, and its wear tells none.'
          : 'When to open it next is not known: its meter was not read yet.'}
      </p>
    );
  return (
    <div className={coming.late ? 'late' : ''}>
      <p>
        <b>{coming.day ? day(coming.day) : 'day not known: read the meter on two days'}</b>
        {coming.late && <span className="late-word"> past due</span>} {coming.sentence}{' '}
        <WorkingLink working={coming.working} />
      </p>
      {page.needs.length > 0 && (
        <details>
          <summary>
            To have for it: {page.needs.length} {page.needs.length === 1 ? 'line' : 'lines'}
            {page.order_by && `, ordered by ${day(page.order_by)}`}
          </summary>
          <table className="ruled">
            <tbody>
              {page.needs.map((need) => (
                <tr key={need.number}>
                  <th scope="row">
                    {need.count} × {need.number}
                  </th>
                  <td>
                    {need.name}
                    <small>{need.reasons.join('; ')}</small>
                  </td>
                  <td className="number">{need.lead_days ? `${need.lead_days} days` : 'at once'}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      )}
      {page.stock.length > 0 && (
        <p className="quiet">
          On the shelf for this sheet:{' '}
          {page.stock.map((one) => `${one.count} of ${one.thickness}`).join(', ')}.
        </p>
      )}
    </div>
  );
}

/** Oil, grease and whatever else the sheet asks for by running hours. */
function Service({ page }: { page: PumpDetail }) {
  const { line, due } = page;
  const [doing, setDoing] = useState('');
  return (
    <>
      <h3>By running hours</h3>
      {due.length === 0 && (
        <p className="quiet">
          {line.hours
            ? 'The sheet asks for nothing by running hours.'
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
        caption="Done by running hours"
        tag={line.tag}
        rows={page.lubricated.map((one) => ({
          ...one,
          said: `${one.name}, at ${grouped(one.hours)}\u00a0h`,
          when: day(one.at.slice(0, 10)),
        }))}
      />
    </>
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
        label={`${name}, at (${page.counts})`}
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
