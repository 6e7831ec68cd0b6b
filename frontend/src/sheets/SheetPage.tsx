import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import type { SheetDetail } from '../api/client';
import { sheetQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import { Table } from '../app/Table';
import { day } from '../app/time';
import { useUnit } from '../app/unit';

/** A sheet as the manual prints it. */
export function SheetPage() {
  const { slug = '', revision = 'latest' } = useParams();
  const { unit } = useUnit();
  const sheet = useQuery(sheetQuery(slug, revision, unit));
  return (
    <div className="page">
      <Loaded query={sheet} what="the sheet">
        {(data) => <Detail sheet={data} unit={unit} />}
      </Loaded>
    </div>
  );
}

function Detail({ sheet, unit }: { sheet: SheetDetail; unit: string }) {
  return (
    <>
      <Head sheet={sheet} />
      {sheet.check && <p className={sheet.check_agrees ? 'quiet' : 'warning'}>{sheet.check}</p>}
      <div className="two-columns wide-right">
        <div>
          <Table
            caption={`Sizes and limits (${unit})`}
            head={['', 'Size', 'New', 'Limit', 'Page']}
            rows={sheet.sizes.map((s) => [String(s.number), s.name, s.new, s.limit, s.page])}
          />
          <Table caption="Adjustment and build" head={['', '']} rows={sheet.adjustment} />
          <Table caption="Torques" head={['Fastener', 'Torque', 'Condition', '']} rows={sheet.torques} />
        </div>
        <Table
          caption={`Clearance table, page ${sheet.table_page}; tolerance ${sheet.tolerance}`}
          head={['Setting', 'Material', 'Viscosity', 'Temperature', 'As printed', unit]}
          rows={sheet.rows.map((r) => [
            r.setting,
            r.material,
            r.viscosity,
            r.temperature,
            r.printed,
            r.clearance,
          ])}
        />
      </div>
      {sheet.building.length > 0 && (
        <Table caption="Press fits, packing, bearings, stacks" head={['', '']} rows={sheet.building} />
      )}
      {sheet.parts.length > 0 && (
        <Table
          caption="Kits and parts"
          head={['Number', 'Name', 'In it, or what it renews', 'Price', 'Lead time']}
          rows={sheet.parts}
        />
      )}
    </>
  );
}

/** Which revision it is, where it is from, and the file it was read from. */
function Head({ sheet }: { sheet: SheetDetail }) {
  return (
    <header className="sheet-head">
      <div>
        <h1>{sheet.title}</h1>
        <p>
          Revision {sheet.revision} of {day(sheet.date)}. {sheet.family}. From: {sheet.source}. Added by{' '}
          {sheet.added_by}. Verdicts by the {sheet.school} school.
        </p>
        {sheet.revisions.length > 1 && (
          <p>
            Revisions:{' '}
            {sheet.revisions.map((r) => (
              <Link key={r} to={`/sheets/${sheet.slug}/${r}`}>
                {r}{' '}
              </Link>
            ))}
          </p>
        )}
      </div>
      <a
        className="btn btn-outline-primary"
        href={`/api/sheets/${sheet.slug}/${sheet.revision}/file`}
        download
      >
        Save as a file
      </a>
    </header>
  );
}
