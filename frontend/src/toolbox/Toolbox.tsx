import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link, useSearchParams } from 'react-router';
import type { Kept } from '../api/client';
import { gaugesQuery, meQuery, type GaugeSort } from '../api/queries';
import { Listed } from '../app/Listed';
import { SearchRow } from '../app/SearchRow';
import { useUnit } from '../app/unit';
import { useSearch } from '../app/useSearch';
import { Cabinet } from './Cabinet';
import { GaugeForm } from './GaugeForm';
import { Guns } from './Guns';
import { RowsFromFile } from '../app/RowsFromFile';
import { Shelf } from './Shelf';

/** Gauges with their certificates, gaskets and shims on the shelf, grease guns, and sums that need no job. */
export function Toolbox() {
  const [asked] = useSearchParams();
  const me = useQuery(meQuery);
  const lead = me.data?.role === 'lead';
  return (
    <div className="page two-columns">
      <div>{me.data && <Gauges lead={lead} adds={lead && asked.has('add')} />}</div>
      <div>
        <Shelf slug={asked.get('sheet') ?? ''} lead={lead} />
        <Guns />
      </div>
    </div>
  );
}

/** The cabinet; `adds` when somebody came to add one. */
function Gauges({ lead, adds }: { lead: boolean; adds: boolean }) {
  const { unit } = useUnit();
  const { typed, setTyped, sought } = useSearch();
  const [sort, setSort] = useState<GaugeSort>('tag');
  const [retired, setRetired] = useState(false);
  const gauges = useInfiniteQuery(gaugesQuery(unit, sought, sort, retired));
  const [form, setForm] = useState<Kept | 'new' | null>(adds ? 'new' : null);
  return (
    <>
      <div className="sheet-head">
        <h1>Gauges</h1>
        <Link className="btn btn-outline-primary" to="/toolbox/sums">
          Quick figures
        </Link>
        <Link className="btn btn-outline-primary" to="/toolbox/settings">
          Settings of the works
        </Link>
        {lead && <Button onClick={() => setForm('new')}>Add a gauge</Button>}
      </div>
      {lead ? (
        <RowsFromFile
          url="/api/gauges/file"
          title="Many gauges from a file"
          row="gauge"
          note="Days as 2026-11-28."
          stale={['gauges', 'start', 'job']}
        />
      ) : (
        <p className="quiet">A lead adds gauges and new certificates.</p>
      )}
      {form && <GaugeForm gauge={form === 'new' ? null : form} onHide={() => setForm(null)} />}
      <SearchRow
        label="Find by name, kind or certificate"
        typed={typed}
        onType={setTyped}
        sort={sort}
        onSort={setSort}
        orders={{ tag: 'name', due: 'next calibration' }}
      />
      <label className="tick">
        <input type="checkbox" checked={retired} onChange={(event) => setRetired(event.target.checked)} />{' '}
        Retired gauges
      </label>
      <Listed
        query={gauges}
        what="the gauges"
        empty={retired ? 'No gauge is retired.' : 'No gauge yet.'}
        sought={sought}
      >
        {(lines) => <Cabinet gauges={lines} lead={lead} onCertificate={setForm} />}
      </Listed>
    </>
  );
}
