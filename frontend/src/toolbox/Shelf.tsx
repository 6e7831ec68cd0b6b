import { useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { client, type ShelfLine } from '../api/client';
import { foundSheetsQuery, shelfQuery } from '../api/queries';
import { Finder } from '../app/Finder';
import { Listed } from '../app/Listed';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { useDraft, useUnit } from '../app/unit';
import { useSearch } from '../app/useSearch';
import { useTyped } from '../app/useTyped';
import type { Entered } from '../app/works';
import { RowsFromFile } from '../app/RowsFromFile';

/** Gaskets and shims with their counts; with a sheet, those of it. */
export function Shelf({ slug, lead }: { slug: string; lead: boolean }) {
  const { unit } = useUnit();
  const [only, setOnly] = useState(slug);
  const { typed, setTyped, sought } = useSearch();
  const stock = useInfiniteQuery(shelfQuery(unit, sought, only));
  return (
    <>
      <h1>Gaskets and shims on the shelf</h1>
      {only ? (
        <Button variant="outline-primary" onClick={() => setOnly('')}>
          Show all sheets
        </Button>
      ) : (
        <TextField label="Find by sheet" value={typed} maxLength={80} onChange={setTyped} />
      )}
      <Listed query={stock} what="the shelf" empty="Nothing counted yet." sought={sought}>
        {(lines) => <Lines lines={lines} />}
      </Listed>
      {lead && (
        <RowsFromFile
          url="/api/shelf/file"
          title="Many counts from a file"
          row="thickness"
          note="Sheets by their titles."
          stale={['shelf', 'job']}
        />
      )}
      <CountForm slug={slug} />
    </>
  );
}

function useCount() {
  const cache = useQueryClient();
  return useTyped(
    (body: { slug: string; thickness: string; count: number } & Entered) =>
      client.POST('/api/shelf', { params: { query: { unit: body.unit } }, body }),
    // Pending until the shelf is read anew: a second press counts from what the first one left.
    () => {
      void cache.invalidateQueries({ queryKey: ['job'] });
      return cache.invalidateQueries({ queryKey: ['shelf'] });
    },
  );
}

function Lines({ lines }: { lines: ShelfLine[] }) {
  const count = useCount();
  return (
    <>
      <ul className="shelf">
        {lines.map((line) => (
          <li key={`${line.slug}-${line.um}`} className="counter">
            <span>
              {line.name} {line.text} <small>{line.sheet}</small>
            </span>
            <button
              type="button"
              aria-label={`one less ${line.name} of ${line.text}`}
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
              aria-label={`one more ${line.name} of ${line.text}`}
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

function CountForm({ slug }: { slug: string }) {
  const { unit } = useUnit();
  const [sheet, setSheet] = useState({ slug, title: '' });
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
        ask={(sought) => foundSheetsQuery(sought, 'gaskets,shims')}
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
