import { useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link } from 'react-router';
import { client, newId, posted, type PumpDetail } from '../api/client';
import { pumpPhotosQuery } from '../api/fleetQueries';
import { FileButton } from '../app/FileButton';
import { Listed } from '../app/Listed';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { day } from '../app/time';
import type { Entered } from '../app/works';
import { Struckable } from './Struckable';
import { usePumpChange } from './usePumpChange';

/** Notes for the next one at this pump. */
export function Notes({ page }: { page: PumpDetail }) {
  const [text, setText] = useState('');
  const identity = useRef(newId());
  const save = usePumpChange(page.line.tag, (body: { id: string; text: string } & Entered, at) =>
    client.POST('/api/pumps/{tag}/notes', { ...at, body }),
  );
  return (
    <section aria-label="Notes">
      <h2>Notes</h2>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (save.isPending) return;
          save.mutate(
            { id: identity.current, text },
            {
              onSuccess: () => {
                identity.current = newId();
                setText('');
              },
            },
          );
        }}
      >
        <label className="field">
          What the next one should know
          <textarea
            rows={2}
            maxLength={1000}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <ProblemNote error={save.error} />
        <Button type="submit" variant="outline-primary" disabled={save.isPending || !text.trim()}>
          Save note
        </Button>
      </form>
      <Struckable
        caption="Notes"
        tag={page.line.tag}
        rows={page.notes.map((one) => ({ ...one, said: one.text, when: day(one.at) }))}
      />
    </section>
  );
}

/** Papers of the pump and its sheet, and photographs from its jobs. */
export function Papers({ page, lead }: { page: PumpDetail; lead: boolean }) {
  const { line, documents, revisions } = page;
  return (
    <section aria-label="Papers and photographs">
      <h2>Papers and photographs</h2>
      <ul className="papers">
        {documents
          .filter((one) => !one.struck_reason)
          .map((one) => (
            <li key={one.id}>
              <a href={one.url} target="_blank" rel="noreferrer">
                {one.name}
              </a>{' '}
              <small>
                {one.kind === 'pdf' ? 'PDF' : 'picture'}, {one.size}; {one.by}, {day(one.at)}
              </small>
            </li>
          ))}
        {revisions.map((one) => (
          <li key={one.revision}>
            <Link to={`/sheets/${line.slug}/${encodeURIComponent(one.revision)}`}>
              {line.sheet}, revision {one.revision}
            </Link>{' '}
            <small>
              spec sheet of {day(one.day)}, with the manual’s pages
              {one.read ? '' : '; not yet read against the manual'}
            </small>
          </li>
        ))}
      </ul>
      {lead && <AddPaper tag={line.tag} />}
      <Struckable
        caption="Papers"
        tag={line.tag}
        rows={documents.map((one) => ({ ...one, said: one.name, when: day(one.at) }))}
      />
      <Photos tag={line.tag} />
    </section>
  );
}

function AddPaper({ tag }: { tag: string }) {
  const cache = useQueryClient();
  const [name, setName] = useState('');
  const [error, setError] = useState<Error | null>(null);
  const [sending, setSending] = useState(false);
  // The same file again, after an answer that was lost, is the same paper.
  const last = useRef({ file: '', id: '' });
  const send = async (file: File) => {
    const told = `${file.name} ${file.size} ${file.lastModified}`;
    if (last.current.file !== told) last.current = { file: told, id: newId() };
    setSending(true);
    setError(null);
    try {
      const body = new FormData();
      body.append('id', last.current.id);
      body.append('name', name.trim() || file.name);
      body.append('file', file);
      await posted(`/api/pumps/${encodeURIComponent(tag)}/documents`, body);
      last.current = { file: '', id: '' };
      setName('');
      await cache.invalidateQueries({ queryKey: ['pump', tag] });
    } catch (wrong) {
      setError(wrong as Error);
    }
    setSending(false);
  };
  return (
    <div className="add-paper">
      <TextField
        label="What it is, such as “certificate, rotor”"
        value={name}
        maxLength={120}
        onChange={setName}
      />
      <FileButton
        label="A paper of the pump"
        accept="application/pdf,image/*"
        off={sending}
        onFile={(file) => void send(file)}
      >
        Add a paper (PDF or picture)
      </FileButton>
      <ProblemNote error={error} />
    </div>
  );
}

function Photos({ tag }: { tag: string }) {
  const photos = useInfiniteQuery(pumpPhotosQuery(tag));
  return (
    <Listed query={photos} what="the photographs" empty="No photograph was taken on its jobs yet.">
      {(lines) => (
        <ul className="photos">
          {lines.map((one) => (
            <li key={one.url}>
              <a href={one.url} target="_blank" rel="noreferrer">
                <img
                  src={one.url}
                  alt={`${one.of}, job ${one.job}${one.note ? `: ${one.note}` : ''}`}
                  loading="lazy"
                />
              </a>
              <small>
                {one.of}, <Link to={`/bench/${one.job}/inspect`}>job {one.job}</Link>, {day(one.at)}
              </small>
            </li>
          ))}
        </ul>
      )}
    </Listed>
  );
}
