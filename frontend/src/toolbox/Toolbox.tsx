import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link } from 'react-router';
import { client, type Gauge, type Stock } from '../api/client';
import { foundSheetsQuery, gaugesQuery, meQuery, stockQuery, type GaugeSort } from '../api/queries';
import { Finder } from '../app/Finder';
import { Listed } from '../app/Listed';
import { ProblemNote } from '../app/ProblemNote';
import { SearchRow } from '../app/SearchRow';
import { TextField } from '../app/TextField';
import { day } from '../app/time';
import { useDraft, useUnit } from '../app/unit';
import { useSearch } from '../app/useSearch';
import { useTyped } from '../app/useTyped';
import type { Entered } from '../app/works';
import { GaugeForm } from './GaugeForm';
import { GaugesFromFile } from './GaugesFromFile';
import { Guns } from './Guns';

/** Gauges with their certificates, gaskets on the shelf, grease guns, and sums that need no job. */
export function Toolbox() {
  const { unit } = useUnit();
  const { typed, setTyped, sought } = useSearch();
  const [sort, setSort] = useState<GaugeSort>('tag');
  const gauges = useInfiniteQuery(gaugesQuery(unit, sought, sort));
  const me = useQuery(meQuery);
  const lead = me.data?.role === 'lead';
  const [form, setForm] = useState<Gauge | 'new' | null>(null);
  const [many, setMany] = useState(false);
  return (
    <div className="page two-columns">
      <div>
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
        {lead && (
          <button type="button" className="fold" aria-expanded={many} onClick={() => setMany(!many)}>
            Many gauges from a file {many ? '▴' : '▾'}
          </button>
        )}
        {many && <GaugesFromFile onKept={() => setMany(false)} />}
        {form && <GaugeForm gauge={form === 'new' ? null : form} onHide={() => setForm(null)} />}
        {me.data && !lead && <p className="quiet">A lead adds gauges and new certificates.</p>}
        <SearchRow
          label="Find by name, kind or certificate"
          typed={typed}
          onType={setTyped}
          sort={sort}
          onSort={setSort}
          orders={{ tag: 'name', due: 'next calibration' }}
        />
        <Listed query={gauges} what="the gauges" empty="No gauge yet." sought={sought}>
          {(lines) => <Cabinet gauges={lines} lead={lead} onCertificate={setForm} />}
        </Listed>
      </div>
      <div>
        <Gaskets />
        <CountForm />
        <Guns />
      </div>
    </div>
  );
}

function Gaskets() {
  const { unit } = useUnit();
  const { typed, setTyped, sought } = useSearch();
  const stock = useInfiniteQuery(stockQuery(unit, sought));
  return (
    <>
      <h1>Head gaskets on the shelf</h1>
      <TextField label="Find by sheet" value={typed} maxLength={80} onChange={setTyped} />
      <Listed query={stock} what="the gaskets" empty="No gasket counted yet." sought={sought}>
        {(lines) => <Shelf lines={lines} />}
      </Listed>
    </>
  );
}

interface CabinetProps {
  gauges: Gauge[];
  lead: boolean;
  onCertificate: (gauge: Gauge) => void;
}

/** Gauges with their certificates. */
function Cabinet({ gauges, lead, onCertificate }: CabinetProps) {
  return (
    <table className="ruled">
      <thead>
        <tr>
          <th scope="col">Gauge</th>
          <th scope="col">Step</th>
          <th scope="col">U (k)</th>
          <th scope="col">Calibrated</th>
          <th scope="col">Due</th>
        </tr>
      </thead>
      <tbody>
        {gauges.map((g) => (
          <tr key={g.tag}>
            <th scope="row">
              {g.tag}{' '}
              <small>
                {g.kind}, {g.range}
                {g.certificate ? `, certificate ${g.certificate}` : ''}
              </small>
              {g.leaves.length > 0 && <small>leaves {g.leaves.join(' · ')}</small>}
            </th>
            <td className="number">{g.resolution}</td>
            <td className="number">
              {g.expanded} ({g.k})
            </td>
            <td>{day(g.calibrated)}</td>
            <td className={g.overdue ? 'warning' : ''}>
              {day(g.due)}
              {g.overdue ? ', out of date' : ''}
              {lead && (
                <button type="button" className="take-back" onClick={() => onCertificate(g)}>
                  new certificate
                </button>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function useCount() {
  const cache = useQueryClient();
  return useTyped(
    (body: { slug: string; thickness: string; count: number } & Entered) =>
      client.POST('/api/gaskets', { params: { query: { unit: body.unit } }, body }),
    // Pending until the shelf is read anew: a second press counts from what the first one left.
    () => cache.invalidateQueries({ queryKey: ['gaskets'] }),
  );
}

function Shelf({ lines }: { lines: Stock[] }) {
  const count = useCount();
  return (
    <>
      <ul className="shelf">
        {lines.map((line) => (
          <li key={`${line.slug}-${line.um}`} className="counter">
            <span>
              {line.text} <small>{line.sheet}</small>
            </span>
            <button
              type="button"
              aria-label={`one less of ${line.text}`}
              disabled={line.count === 0 || count.isPending}
              onClick={() =>
                count.mutate({ slug: line.slug, thickness: `${line.um} um`, count: line.count - 1 })
              }
            >
              −
            </button>
            <output>{line.count}</output>
            <button
              type="button"
              aria-label={`one more of ${line.text}`}
              disabled={count.isPending}
              onClick={() =>
                count.mutate({ slug: line.slug, thickness: `${line.um} um`, count: line.count + 1 })
              }
            >
              +
            </button>
          </li>
        ))}
      </ul>
      <ProblemNote error={count.error} />
    </>
  );
}

function CountForm() {
  const { unit } = useUnit();
  const [sheet, setSheet] = useState({ slug: '', title: '' });
  const [thickness, setThickness] = useDraft();
  const [number, setNumber] = useState('');
  const count = useCount();
  return (
    <form
      className="panel"
      onSubmit={(event) => {
        event.preventDefault();
        count.mutate(
          { slug: sheet.slug, thickness, count: Number(number) },
          {
            onSuccess: () => {
              setThickness('');
              setNumber('');
            },
          },
        );
      }}
    >
      <h2>Count another thickness</h2>
      <Finder
        label={sheet.title ? `For ${sheet.title}` : 'For which sheet'}
        find="Find a sheet"
        what="the sheets"
        ask={(sought) => foundSheetsQuery(sought, 'gaskets')}
        keyOf={(s) => s.slug}
        value={sheet.slug}
        onChoose={(slug, { title }) => setSheet({ slug, title })}
      >
        {(s) => s.title}
      </Finder>
      <div className="try-check">
        <TextField short label={`Thickness (${unit})`} value={thickness} onChange={setThickness} />
        <TextField
          short
          label="On the shelf"
          keyboard="numeric"
          value={number}
          maxLength={4}
          onChange={setNumber}
        />
      </div>
      <ProblemNote error={count.error} onConfirm={count.confirm} />
      <Button type="submit" disabled={count.isPending || !sheet.slug}>
        Save count
      </Button>
    </form>
  );
}
