import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { csrfToken, unwrap } from '../api/client';
import type { components } from '../api/schema';
import { ProblemNote } from '../app/ProblemNote';
import { useEntered, type Entered } from '../app/works';

type Tried = components['schemas']['GaugeFileResponse'];

/** Many gauges from a table: every one is tried and said, then all are put in, or none. */
export function GaugesFromFile({ onKept }: { onKept: () => void }) {
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const entered = useEntered();
  const cache = useQueryClient();
  const send = useMutation({
    retry: false,
    mutationFn: ({ chosen, dry }: { chosen: File; dry: boolean }) => sent(chosen, dry, entered()),
    onSuccess: (tried) => {
      if (!tried.kept) return;
      void cache.invalidateQueries({ queryKey: ['gauges'] });
      void cache.invalidateQueries({ queryKey: ['start'] });
      onKept();
    },
  });
  const choose = (chosen: File | undefined) => {
    if (!chosen) return;
    setFile(chosen);
    send.mutate({ chosen, dry: true });
    if (input.current) input.current.value = '';
  };
  return (
    <section className="panel" aria-label="Gauges from a file">
      <h2>Many gauges, from a file</h2>
      <p>
        CSV or XLSX with the columns of <a href="/api/gauges/file">the template</a>; days as 2026-11-28. Every
        gauge is tried first. If one is wrong, none is put in.
      </p>
      <input
        ref={input}
        type="file"
        accept=".csv,.xlsx,text/csv"
        className="visually-hidden"
        aria-label="File of gauges"
        onChange={(event) => choose(event.target.files?.[0])}
      />
      <Button variant="outline-primary" disabled={send.isPending} onClick={() => input.current?.click()}>
        Choose a file
      </Button>
      <ProblemNote error={send.error} />
      {send.data && file && (
        <Verdicts
          tried={send.data}
          name={file.name}
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
  off: boolean;
  onKeep: () => void;
}

function Verdicts({ tried, name, off, onKeep }: VerdictsProps) {
  const wrong = tried.rows.filter((row) => row.wrong);
  const count = tried.rows.length;
  return (
    <>
      <p role="status">
        {name}: {count} {count === 1 ? 'gauge' : 'gauges'},{' '}
        {wrong.length ? `${wrong.length} wrong.` : 'nothing wrong.'}
      </p>
      <ul className="lines gauges-read">
        {(wrong.length ? wrong : tried.rows).map((row) => (
          <li key={row.number}>
            <b>{row.tag || `gauge ${row.number}`}</b>{' '}
            <span className={row.wrong ? 'warning' : ''}>{row.wrong || row.read}</span>
          </li>
        ))}
      </ul>
      {wrong.length === 0 && (
        <Button disabled={off} onClick={onKeep}>
          Put {count === 1 ? 'it' : `all ${count}`} into the cabinet
        </Button>
      )}
    </>
  );
}

async function sent(file: File, dry: boolean, how: Entered): Promise<Tried> {
  const body = new FormData();
  body.append('file', file);
  for (const [name, value] of Object.entries({ dry, ...how })) body.append(name, String(value));
  const response = await fetch('/api/gauges/file', {
    method: 'POST',
    body,
    headers: { 'X-CSRFToken': csrfToken() },
  });
  const told: unknown = await response.json().catch(() => undefined);
  return unwrap(Promise.resolve(response.ok ? { data: told as Tried, response } : { error: told, response }));
}
