import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link, useParams } from 'react-router';
import { client, type PumpDetail } from '../api/client';
import { meQuery, pumpQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { day } from '../app/time';
import { useUnit } from '../app/unit';
import type { Entered } from '../app/works';
import { FleetNav } from './FleetNav';
import { History } from './History';
import { Meter } from './Meter';
import { Notes, Papers } from './PumpPapers';
import { Places } from './Places';
import { PumpForm } from './PumpForm';
import { Life, Overhauls } from './PumpLife';
import { PumpNext } from './PumpNext';
import { PumpState } from './PumpState';
import { usePumpChange } from './usePumpChange';

/** One pump: how it stands, what comes next, its meter, its overhauls, and all that was done to it. */
export function PumpPage() {
  const { tag = '' } = useParams();
  const { unit } = useUnit();
  const pump = useQuery(pumpQuery(tag, unit));
  return (
    <div className="page">
      <FleetNav />
      <Loaded query={pump} what={`pump ${tag}`}>
        {(page) => <Whole page={page} />}
      </Loaded>
    </div>
  );
}

function Whole({ page }: { page: PumpDetail }) {
  const { line } = page;
  const me = useQuery(meQuery);
  const lead = me.data?.role === 'lead';
  const [editing, setEditing] = useState(false);
  return (
    <>
      <Head page={page} lead={lead} onEdit={editing ? undefined : () => setEditing(true)} />
      {editing && <PumpForm page={page} onHide={() => setEditing(false)} />}
      <PumpState key={line.tag} page={page} />
      <div className="two-columns">
        <div className="stacked">
          <PumpNext page={page} />
          <Overhauls tag={line.tag} />
          <Life tag={line.tag} />
        </div>
        <div className="stacked">
          <Meter page={page} />
          <Notes page={page} />
          <Places page={page} lead={lead} />
          <Papers page={page} lead={lead} />
          <History page={page} lead={lead} />
        </div>
      </div>
    </>
  );
}

interface HeadProps {
  page: PumpDetail;
  lead: boolean;
  onEdit: (() => void) | undefined;
}

function Head({ page, lead, onEdit }: HeadProps) {
  const { line, duty } = page;
  const { unit } = useUnit();
  const retire = usePumpChange(line.tag, (body: { retired: boolean } & Entered, at) =>
    client.POST('/api/pumps/{tag}/retire', { ...at, body }),
  );
  const at = encodeURIComponent(line.tag);
  return (
    <>
      <div className="sheet-head">
        <h1>
          {line.tag} <small>{line.service}</small>
        </h1>
        {line.on_bench !== null && (
          <Link className="btn btn-primary" to={`/bench/${line.on_bench}`}>
            On the bench: job {line.on_bench}
          </Link>
        )}
        {!line.retired && !line.lent && line.on_bench === null && (
          <Link className="btn btn-primary" to={`/bench?pump=${at}`}>
            Open a job
          </Link>
        )}
        <a
          className="btn btn-outline-primary"
          href={`/api/pumps/${at}/bench-sheet.pdf?unit=${unit}`}
          target="_blank"
          rel="noreferrer"
        >
          Blank bench sheet
        </a>
        <Link className="btn btn-outline-primary" to={`/fleet/labels?tag=${at}`}>
          Label
        </Link>
        {lead && onEdit && (
          <Button variant="outline-primary" onClick={onEdit}>
            Edit
          </Button>
        )}
        {lead && (
          <Button
            variant="outline-secondary"
            disabled={retire.isPending}
            onClick={() => retire.mutate({ retired: !line.retired })}
          >
            {line.retired ? 'Take it back into the fleet' : 'Retire it'}
          </Button>
        )}
      </div>
      <p>
        {line.liquid}, {duty.viscosity} at {duty.temperature}, {duty.pressure}, {duty.speed}; {duty.material}.{' '}
        <Link to={`/fleet?place=${encodeURIComponent(line.location)}`}>{line.location}</Link>
        {page.wet && ', a wet place'}. <Link to={`/sheets/${line.slug}/latest`}>{line.sheet}</Link>, serial{' '}
        {line.serial}. Label {page.code}.
      </p>
      <ProblemNote error={retire.error} />
      <Away page={page} />
    </>
  );
}

/** A pump that is not here, or comes to the bench no more. */
function Away({ page }: { page: PumpDetail }) {
  const { line } = page;
  return (
    <>
      {line.lent && (
        <p className="notice">It is on loan, at {line.location}. It belongs here, and is expected back.</p>
      )}
      {line.retired && (
        <p className="notice">
          Retired {day(line.retired)}: it comes to the bench no more, and nothing falls due of it. What was
          done on it stands.
        </p>
      )}
    </>
  );
}
