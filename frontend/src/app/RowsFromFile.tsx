import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { posted } from '../api/client';
import type { components } from '../api/schema';
import { FileButton } from './FileButton';
import { ProblemNote } from './ProblemNote';
import { useEntered, type Entered } from './works';

type Tried = components['schemas']['RowsResponse'];

interface Props {
  /** Where the table is sent, and its template is had. */
  url: '/api/gauges/file' | '/api/shelf/file' | '/api/pumps-from-file';
  /** What a row is: gauge, thickness. */
  row: string;
  /** What has to be known of the table beside its columns. */
  note: string;
  /** What is read anew once they are kept. */
  stale: readonly string[];
  title: string;
}

/** Many rows from a table, under a fold that closes once they are kept. */
export function RowsFromFile({ title, ...table }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="fold" aria-expanded={open} onClick={() => setOpen(!open)}>
        {title} {open ? '▴' : '▾'}
      </button>
      {open && <FromFile {...table} onKept={() => setOpen(false)} />}
    </>
  );
}

type FromFileProps = Omit<Props, 'title'> & { onKept: () => void };

/** Every row is tried and said, then all are kept, or none. */
export function FromFile({ url, row, note, stale, onKept }: FromFileProps) {
  const [file, setFile] = useState<File | null>(null);
  const entered = useEntered();
  const cache = useQueryClient();
  const send = useMutation({
    retry: false,
    mutationFn: ({ chosen, dry }: { chosen: File; dry: boolean }) => sent(url, chosen, dry, entered()),
    onSuccess: (tried) => {
      if (!tried.kept) return;
      for (const key of stale) void cache.invalidateQueries({ queryKey: [key] });
      onKept();
    },
  });
  return (
    <section className="panel" aria-label={`Many ${plural(row)} from a file`}>
      <p>
        CSV or XLSX with the columns of <a href={url}>the template</a>. {note} Every {row} is tried first. If
        one is wrong, none is kept.
      </p>
      <FileButton
        label={`File of ${plural(row)}`}
        accept=".csv,.xlsx,text/csv"
        off={send.isPending}
        onFile={(chosen) => {
          setFile(chosen);
          send.mutate({ chosen, dry: true });
        }}
      >
        Choose a file
      </FileButton>
      <ProblemNote error={send.error} />
      {send.data && file && (
        <Verdicts
          tried={send.data}
          name={file.name}
          row={row}
          off={send.isPending}
          onKeep={() => send.mutate({ chosen: file, dry: false })}
        />
      )}
    </section>
  );
}

interface VerdictsProps {
  tried: Tried;
  name: string;
  row: string;
  off: boolean;
  onKeep: () => void;
}

function Verdicts({ tried, name, row: what, off, onKeep }: VerdictsProps) {
  const wrong = tried.rows.filter((row) => row.wrong);
  const count = tried.rows.length;
  return (
    <>
      <p role="status">
        {name}: {count} {count === 1 ? what : plural(what)},{' '}
        {wrong.length ? `${wrong.length} wrong.` : 'nothing wrong.'}
      </p>
      <ul className="lines rows-read">
        {(wrong.length ? wrong : tried.rows).map((row) => (
          <li key={row.number}>
            <b>{row.name || `${what} ${row.number}`}</b>{' '}
            <span className={row.wrong ? 'warning' : ''}>{row.wrong || row.read}</span>
          </li>
        ))}
      </ul>
      {wrong.length === 0 && (
        <Button disabled={off} onClick={onKeep}>
          Keep {count === 1 ? 'it' : `all ${count}`}
        </Button>
      )}
    </>
  );
}

function sent(url: string, file: File, dry: boolean, how: Entered): Promise<Tried> {
  const body = new FormData();
  body.append('file', file);
  for (const [name, value] of Object.entries({ dry, ...how })) body.append(name, String(value));
  return posted<Tried>(url, body);
}

const plural = (row: string) => (row.endsWith('s') ? `${row}es` : `${row}s`);
