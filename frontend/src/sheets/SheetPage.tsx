import {
  useInfiniteQuery,
  useQuery,
  type InfiniteData,
  type UseInfiniteQueryResult,
} from '@tanstack/react-query';
import { Button } from 'react-bootstrap';
import { Link, useParams } from 'react-router';
import type { JobLine, SheetDetail } from '../api/client';
import { jobsOfSheetQuery, meQuery, sheetQuery } from '../api/queries';
import { Listed, type Page } from '../app/Listed';
import { Loaded } from '../app/Loading';
import { Table } from '../app/Table';
import { ProblemNote } from '../app/ProblemNote';
import { day } from '../app/time';
import { useUnit } from '../app/unit';
import { useBegin } from './BeginSheet';
import { ManualPages } from './ManualPages';
import { pumpsOf } from './pumpsOf';
import '../styles/typing.css';

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
      <Touched sheet={sheet} />
      {sheet.check && <p className={sheet.check_agrees ? 'quiet' : 'warning'}>{sheet.check}</p>}
      {sheet.remarks.map((said) => (
        <p key={said} className="warning">
          {said}
        </p>
      ))}
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
      {sheet.cautions.length > 0 && (
        <Table caption="Cautions of the maker" head={['Stage', 'Caution']} rows={sheet.cautions} />
      )}
      {sheet.pages.length > 0 && <ManualPages pages={sheet.pages} />}
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

/** Which revision it is, where it is from, who read it, and what can be done with it. */
function Head({ sheet }: { sheet: SheetDetail }) {
  const me = useQuery(meQuery);
  const begin = useBegin();
  const { slug, revision } = sheet;
  const here = `/sheets/${slug}/${encodeURIComponent(revision)}`;
  const from = (purpose: string) => begin.from({ sheet: slug, revision, purpose });
  return (
    <>
      <header className="sheet-head">
        <div>
          <h1>{sheet.title}</h1>
          <p>
            Revision {revision} of {day(sheet.date)}. {sheet.family}. From: {sheet.source}. Added by{' '}
            {sheet.added_by}. {readOf(sheet)} Verdicts by the {sheet.school} school.
          </p>
          <Revisions sheet={sheet} />
          <p className="quiet">{pumpsOf(sheet)}</p>
        </div>
        <a
          className="btn btn-outline-primary"
          href={`/api/sheets/${slug}/${encodeURIComponent(revision)}/file`}
          download
        >
          Save as a file
        </a>
      </header>
      {sheet.unread && (
        <p className="unread" role="status">
          Not yet read against the manual: {sheet.lines_read} of {sheet.lines} lines so far. Nothing is signed
          on it.{' '}
          <Link className="btn btn-outline-primary" to={`${here}/reading`}>
            Read it against the manual
          </Link>
        </p>
      )}
      {me.data?.role === 'lead' && (
        <div className="grid-tools">
          {sheet.unread ? (
            <Button variant="outline-primary" disabled={begin.pending} onClick={() => from('unread')}>
              Put it right
            </Button>
          ) : (
            <Button variant="outline-primary" disabled={begin.pending} onClick={() => from('correction')}>
              Correct a number
            </Button>
          )}
          <Button variant="outline-primary" disabled={begin.pending} onClick={() => from('revision')}>
            A new revision
          </Button>
          <Button variant="outline-primary" disabled={begin.pending} onClick={() => from('size')}>
            Copy for the next size
          </Button>
        </div>
      )}
      <ProblemNote error={begin.error} />
    </>
  );
}

function readOf(sheet: SheetDetail): string {
  if (sheet.unread) return '';
  if (!sheet.read_at) return 'Added before reading against the manual was asked for.';
  return `Read against the manual by ${sheet.read_names}${sheet.read_alone ? ', who typed some of it' : ''}, ${day(sheet.read_at.slice(0, 10))}.`;
}

/** The other revisions, each to be gone to or held against this one. */
function Revisions({ sheet }: { sheet: SheetDetail }) {
  const others = sheet.revisions.filter((one) => one !== sheet.revision);
  if (!others.length) return null;
  const to = (revision: string) => `/sheets/${sheet.slug}/${encodeURIComponent(revision)}`;
  return (
    <p>
      Other revisions:{' '}
      {others.map((one) => (
        <span key={one}>
          <Link to={to(one)}>{one}</Link> (
          <Link to={`${to(sheet.revision)}/against/${encodeURIComponent(one)}`}>compare</Link>){' '}
        </span>
      ))}
    </p>
  );
}

/** Whom a revision touches: jobs that were signed on what it corrects, and open jobs that go by another. */
function Touched({ sheet }: { sheet: SheetDetail }) {
  const { slug: of, revision, corrects } = sheet;
  const open = useInfiniteQuery(jobsOfSheetQuery('open', { sheet: of, but: revision }));
  const signed = useInfiniteQuery({
    ...jobsOfSheetQuery('signed', { sheet: of, revision: corrects }),
    enabled: corrects !== '',
  });
  const some = (one: typeof open) => (one.data?.pages[0]?.lines.length ?? 0) > 0;
  return (
    <>
      {some(signed) && (
        <section aria-label="Signed on what this corrects">
          <h2>Signed on revision {corrects}</h2>
          <p>
            This revision corrects{' '}
            <Link
              to={`/sheets/${of}/${encodeURIComponent(revision)}/against/${encodeURIComponent(corrects)}`}
            >
              what they went by
            </Link>
            . Each says which of its numbers are doubtful.
          </p>
          <JobLines query={signed} />
        </section>
      )}
      {sheet.revisions[0] === revision && some(open) && (
        <section aria-label="Open on another revision">
          <h2>Open jobs on another revision</h2>
          <p>A job keeps the revision it was opened with.</p>
          <JobLines query={open} />
        </section>
      )}
    </>
  );
}

function JobLines({ query }: { query: UseInfiniteQueryResult<InfiniteData<Page<JobLine>>> }) {
  return (
    <Listed query={query} what="the jobs" empty="">
      {(lines) => (
        <ul className="lines">
          {lines.map((one) => (
            <li key={one.number}>
              <Link to={`/bench/${one.number}`}>
                <b>{one.pump}</b> <span>job {one.number}</span>
                <small>
                  {one.reason}. {one.signed_at ? `Signed ${day(one.signed_at.slice(0, 10))}.` : ''}
                </small>
              </Link>
            </li>
          ))}
        </ul>
      )}
    </Listed>
  );
}
