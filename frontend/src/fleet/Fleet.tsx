import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link, useNavigate } from 'react-router';
import type { PumpLine } from '../api/client';
import { pumpsQuery } from '../api/fleetQueries';
import { meQuery } from '../api/queries';
import { Choice } from '../app/Choice';
import { Loaded } from '../app/Loading';
import { TextField } from '../app/TextField';
import { day } from '../app/time';
import { useUnit } from '../app/unit';
import { useSearch } from '../app/useSearch';
import { SmallBar } from '../drawing/SmallBar';
import { AddPump } from './AddPump';
import { FILTERS, SORTS, useFleetAsked } from './fleetAsked';
import { FleetNav } from './FleetNav';
import { codeIn } from './label';

/** One line a pump: where it is, its sizes with the least left, what falls due first, its meter. */
export function Fleet() {
  const { unit } = useUnit();
  const { asked, params } = useFleetAsked();
  const pumps = useInfiniteQuery(pumpsQuery(unit, asked));
  const me = useQuery(meQuery);
  const isLead = me.data?.role === 'lead';
  const [adding, setAdding] = useState(false);
  const narrowed = ['q', 'due', 'bench', 'lent', 'retired', 'place', 'sheet'].some((name) =>
    params.has(name),
  );
  return (
    <div className="page">
      <FleetNav />
      <div className="sheet-head">
        <h1>Fleet</h1>
        <Find />
        {isLead && !adding && (
          <Button variant="outline-primary" onClick={() => setAdding(true)}>
            Add a pump
          </Button>
        )}
      </div>
      {adding && <AddPump onHide={() => setAdding(false)} />}
      <Narrowed />
      <Loaded query={pumps} what="the fleet">
        {({ pages }) => {
          const lines = pages.flatMap((page) => page.lines);
          if (lines.length)
            return (
              <Rows
                lines={lines}
                more={pumps.hasNextPage}
                isFetching={pumps.isFetchingNextPage}
                onMore={() => void pumps.fetchNextPage()}
              />
            );
          if (narrowed) return <p className="blank">No pump is like that.</p>;
          return (
            <p className="blank">
              No pump yet. {isLead ? 'Add the first' : 'A lead adds them'}; its spec sheet has to be there
              first.
            </p>
          );
        }}
      </Loaded>
    </div>
  );
}

/** One field for whatever is known of a pump; a label scanned into it opens its pump. */
function Find() {
  const { params, put } = useFleetAsked();
  const { typed, setTyped, sought } = useSearch(params.get('q') ?? '');
  const navigate = useNavigate();
  const kept = params.get('q') ?? '';
  useEffect(() => {
    if (!codeIn(sought) && sought !== kept) put('q', sought);
    // What was typed leads; the address follows it, and nothing else writes it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [sought]);
  return (
    <div className="search-row">
      <TextField
        label="Find by tag, serial, maker, place, liquid, sheet or part number"
        value={typed}
        maxLength={200}
        onChange={setTyped}
        onEnter={() => {
          const code = codeIn(typed);
          if (code) void navigate(`/p/${code}`);
        }}
      />
      <Choice
        label="In order of"
        value={params.get('sort') ?? 'tag'}
        choices={Object.entries(SORTS)}
        onChange={(sort) => put('sort', sort)}
      />
    </div>
  );
}

/** What the list is narrowed to. */
function Narrowed() {
  const { params, put } = useFleetAsked();
  const one = [
    ['place', 'at'],
    ['sheet', 'of sheet'],
  ] as const;
  return (
    <div className="narrowed" role="group" aria-label="Show only">
      {FILTERS.map(([name, value, words]) => (
        <label key={name} className="tick">
          <input
            type="checkbox"
            checked={params.get(name) === value}
            onChange={(event) => put(name, event.target.checked ? value : '')}
          />{' '}
          {words}
        </label>
      ))}
      {one.map(
        ([name, words]) =>
          params.get(name) && (
            <button key={name} type="button" className="tool" onClick={() => put(name, '')}>
              {words} {params.get(name)} ×
            </button>
          ),
      )}
    </div>
  );
}

interface RowsProps {
  lines: PumpLine[];
  more: boolean;
  isFetching: boolean;
  onMore: () => void;
}

const ROW_PX = 86;

/** Only the lines that are on screen are in the page, however many there are; the next ones are fetched before they are reached. */
function Rows({ lines, more, isFetching, onMore }: RowsProps) {
  const box = useRef<HTMLDivElement>(null);
  const [margin, setMargin] = useState(0);
  useEffect(() => setMargin(box.current?.offsetTop ?? 0), [lines.length]);
  // eslint-disable-next-line react-hooks/incompatible-library -- nothing of it is memoized
  const rows = useVirtualizer({
    count: lines.length,
    getScrollElement: () => document.getElementById('main'),
    estimateSize: () => ROW_PX,
    overscan: 6,
    scrollMargin: margin,
  });
  const shown = rows.getVirtualItems();
  const last = shown.at(-1)?.index ?? 0;
  useEffect(() => {
    if (more && !isFetching && last >= lines.length - 12) onMore();
  }, [last, lines.length, more, isFetching, onMore]);
  return (
    <div role="table" aria-label="Pumps" aria-rowcount={more ? -1 : lines.length + 1} className="fleet-table">
      <div role="row" className="fleet-head">
        <span role="columnheader">Pump</span>
        <span role="columnheader">Sizes with least left</span>
        <span role="columnheader">Falls due first</span>
        <span role="columnheader">Meter</span>
        <span role="columnheader">Job</span>
      </div>
      <div ref={box} role="rowgroup" style={{ height: rows.getTotalSize(), position: 'relative' }}>
        {shown.map(({ index, key, start }) => {
          const pump = lines[index];
          return (
            pump && (
              <div
                key={key}
                role="row"
                aria-rowindex={index + 2}
                data-index={index}
                ref={rows.measureElement}
                className="fleet-row"
                style={{ transform: `translateY(${start - margin}px)` }}
              >
                <Row pump={pump} />
              </div>
            )
          );
        })}
      </div>
      {isFetching && <p className="quiet">More pumps are fetched …</p>}
    </div>
  );
}

function Row({ pump }: { pump: PumpLine }) {
  const { unit } = useUnit();
  return (
    <>
      <span role="rowheader">
        <Link to={`/fleet/${encodeURIComponent(pump.tag)}`}>{pump.tag}</Link>{' '}
        <small>
          {pump.service}, {pump.lent ? <b>on loan, {pump.location}</b> : pump.location}
        </small>
        <small>
          {pump.sheet}, serial {pump.serial}
        </small>
      </span>
      <span role="cell" className="least">
        {pump.worst.map((bar) => (
          <span key={bar.key}>
            <b aria-hidden="true">{bar.number}</b> <SmallBar bar={bar} unit={unit} />
            <small aria-hidden="true">{bar.left || `${bar.text} ${unit}`}</small>
          </span>
        ))}
        {!pump.worst.length && (
          <span className="quiet">{pump.overhauls ? 'no size with a limit' : 'not measured yet'}</span>
        )}
      </span>
      <span role="cell">
        {pump.next ? (
          <>
            <b className={pump.next.late ? 'late-word' : ''}>
              {pump.next.late ? 'past due, ' : ''}
              {day(pump.next.day)}
            </b>
            <small>{pump.next.what}</small>
          </>
        ) : (
          <span className="quiet">{undatedSaid(pump)}</span>
        )}
        {pump.left && <small>inspection: {pump.left}</small>}
      </span>
      <span role="cell">
        {pump.hours || <span className="quiet">not read</span>}
        {pump.read && <small>{day(pump.read)}</small>}
        {pump.rate && <small>{pump.rate}</small>}
      </span>
      <span role="cell">
        <Now pump={pump} />
      </span>
    </>
  );
}

/** Why no day stands there: nothing is claimed of a pump nobody has read the meter of. */
function undatedSaid(pump: PumpLine): string {
  if (pump.retired) return 'retired';
  if (!pump.hours) return 'not known: meter not read';
  return pump.left ? 'day not known' : 'nothing, by its meter';
}

function Now({ pump }: { pump: PumpLine }) {
  if (pump.retired) return <span className="quiet">retired {day(pump.retired)}</span>;
  if (pump.lent) return <span className="quiet">on loan</span>;
  if (pump.on_bench !== null)
    return (
      <Link className="btn btn-outline-primary" to={`/bench/${pump.on_bench}`}>
        On the bench
      </Link>
    );
  return (
    <Link className="btn btn-outline-primary" to={`/bench?pump=${encodeURIComponent(pump.tag)}`}>
      Open a job
    </Link>
  );
}
