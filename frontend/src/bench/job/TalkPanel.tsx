import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { client, newId, type Job, type Talk } from '../../api/client';
import { somebodyQuery } from '../../api/queries';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { moment } from '../../app/time';
import { useTyped } from '../../app/useTyped';
import type { Entered } from '../../app/works';

type Note = Talk['notes'][number];

/** Notes on a job, its hand-over, and what was taken over. Nothing of it is part of the record. */
export function TalkPanel({ job, talk }: { job: Job; talk: Talk }) {
  const isOpen = !job.signed && !job.abandoned;
  return (
    <section className="panel talk-panel" aria-label="Notes on the job">
      <WriteForm job={job} mayHand={isOpen} />
      <ul className="notes">
        {talk.notes.map((note) => (
          <OneNote key={note.id} number={job.number} note={note} />
        ))}
      </ul>
      {talk.more && <p className="quiet">Only the newest are shown.</p>}
      <p className="quiet">Notes are beside the record: they are not signed, and not in the report.</p>
    </section>
  );
}

/** After a change what goes on at the job is what came back. */
function useTalkChange<T extends object>(
  number: number,
  send: (body: T & Entered) => Promise<{ data?: Talk; error?: unknown; response: Response }>,
) {
  const cache = useQueryClient();
  return useTyped<T, Talk>(send, (talk) => cache.setQueryData(['talk', number], talk));
}

function WriteForm({ job, mayHand }: { job: Job; mayHand: boolean }) {
  const { number } = job;
  const people = useQuery({ ...somebodyQuery, enabled: mayHand });
  const [text, setText] = useState('');
  const [handover, setHandover] = useState(false);
  const [to, setTo] = useState('');
  const identity = useRef(newId());
  const save = useTalkChange(
    number,
    (body: { id: string; text: string; handover: boolean; to: string } & Entered) =>
      client.POST('/api/jobs/{number}/notes', { params: { path: { number } }, body }),
  );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (save.isPending) return;
        save.mutate(
          { id: identity.current, text, handover, to: handover ? to : '' },
          {
            onSuccess: () => {
              identity.current = newId();
              setText('');
              setHandover(false);
            },
          },
        );
      }}
    >
      <label className="field">
        {handover ? 'What is done, what is open, where the parts lie' : 'Note'}
        <textarea rows={2} maxLength={1000} value={text} onChange={(event) => setText(event.target.value)} />
      </label>
      {mayHand && (
        <label className="tick">
          <input type="checkbox" checked={handover} onChange={() => setHandover(!handover)} /> Hand the job
          over
        </label>
      )}
      {handover && (
        <label className="field">
          To
          <select value={to} onChange={(event) => setTo(event.target.value)}>
            <option value="">whoever goes on</option>
            {people.data?.map((one) => (
              <option key={one.username} value={one.username}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
      )}
      <ProblemNote error={save.error} />
      <Button type="submit" variant="outline-primary" disabled={save.isPending || !text.trim()}>
        {handover ? 'Hand over' : 'Save note'}
      </Button>
    </form>
  );
}

function OneNote({ number, note }: { number: number; note: Note }) {
  const [striking, setStriking] = useState(false);
  const [reason, setReason] = useState('');
  const path = { number, note: note.id };
  const take = useTalkChange(number, (body: Entered) =>
    client.POST('/api/jobs/{number}/notes/{note}/take', { params: { path }, body }),
  );
  const strike = useTalkChange(number, (body: { reason: string } & Entered) =>
    client.POST('/api/jobs/{number}/notes/{note}/strike', { params: { path }, body }),
  );
  return (
    <li className={note.struck_reason ? 'struck' : ''}>
      <Said note={note} />
      {note.may_take && (
        <Button variant="outline-primary" disabled={take.isPending} onClick={() => take.mutate({})}>
          Take it over
        </Button>
      )}
      {!note.struck_reason && !striking && (
        <button type="button" className="take-back" onClick={() => setStriking(true)}>
          strike out
        </button>
      )}
      {striking && !note.struck_reason && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            strike.mutate({ reason });
          }}
        >
          <TextField autoFocus label="Why" value={reason} maxLength={200} onChange={setReason} />
          <Button type="submit" disabled={strike.isPending}>
            Strike out
          </Button>
        </form>
      )}
      <ProblemNote error={take.error ?? strike.error} />
    </li>
  );
}

function Said({ note }: { note: Note }) {
  return (
    <p>
      {note.handover && <b>Hand-over{note.to && ` to ${note.to}`}: </b>}
      {note.text} <small>{`${note.by}, ${moment(note.at)}`}</small>
      {note.taken_by && (
        <small>
          {' '}
          · taken over by {note.taken_by}
          {note.taken_at && `, ${moment(note.taken_at)}`}
        </small>
      )}
      {note.struck_reason && <em> struck out: {note.struck_reason}</em>}
    </p>
  );
}
