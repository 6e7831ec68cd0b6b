import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useState } from 'react';
import { client, type Job, type Talk as TalkData } from '../../api/client';
import { talkQuery } from '../../api/fleetQueries';
import { moment } from '../../app/time';

const TalkPanel = lazy(async () => ({ default: (await import('./TalkPanel')).TalkPanel }));

const READ_MS = 20_000;
const AGAIN_MS = 240_000;

const looked = (number: number, version: number) =>
  client
    .POST('/api/jobs/{number}/looked', { params: { path: { number } }, body: { version } })
    .catch(() => undefined);

type Panel = '' | 'notes' | 'since';

/** What goes on at a job; what changed since this person looked stays until it is read, whatever is fetched meanwhile. */
function useTalk({ number, version }: Job) {
  const { data } = useQuery(talkQuery(number));
  const [since, setSince] = useState<TalkData['since'] | undefined>();
  if (since === undefined && data) setSince(data.since);
  useEffect(() => {
    const first = window.setTimeout(() => void looked(number, version), READ_MS);
    const again = window.setInterval(() => void looked(number, version), AGAIN_MS);
    return () => {
      window.clearTimeout(first);
      window.clearInterval(again);
    };
  }, [number, version]);
  const read = () => {
    void looked(number, version);
    setSince(null);
  };
  return { talk: data, since: since ?? null, read };
}

/** Who is on the job, what they wrote one another, and what changed since this person looked: one line, opened when wanted. */
export function Talk({ job }: { job: Job }) {
  const { talk, since, read } = useTalk(job);
  const [open, setOpen] = useState<Panel>('');
  return (
    <div className="talk">
      <Row talk={talk} since={since} open={open} onToggle={(panel) => setOpen(open === panel ? '' : panel)} />
      {open === 'since' && since && (
        <Since
          since={since}
          onRead={() => {
            read();
            setOpen('');
          }}
        />
      )}
      {open === 'notes' && talk && (
        <Suspense fallback={<p className="quiet">Reading the notes …</p>}>
          <TalkPanel job={job} talk={talk} />
        </Suspense>
      )}
    </div>
  );
}

interface RowProps {
  talk: TalkData | undefined;
  since: TalkData['since'];
  open: Panel;
  onToggle: (panel: Panel) => void;
}

/** It has its room before anything of it is there: nothing below it moves under a finger. */
function Row({ talk, since, open, onToggle }: RowProps) {
  const standing = talk?.notes.filter((note) => !note.struck_reason) ?? [];
  const waiting = standing.find((note) => note.may_take);
  return (
    <p>
      <button
        type="button"
        className="tool"
        aria-expanded={open === 'notes'}
        disabled={!talk}
        onClick={() => onToggle('notes')}
      >
        {standing.length ? `Notes (${standing.length})` : 'Notes, hand over'}
      </button>
      {since && (
        <button
          type="button"
          className="tool"
          aria-expanded={open === 'since'}
          onClick={() => onToggle('since')}
        >
          {changesSaid(since)}
        </button>
      )}
      {waiting && <b className="late-word">{handedSaid(waiting)}</b>}
      {talk && talk.here.length > 0 && <span>On it: {talk.here.map(whoSaid).join(', ')}</span>}
    </p>
  );
}

function handedSaid(note: TalkData['notes'][number]): string {
  return `${note.by} hands it over${note.to ? ' to you' : ''}: “${note.text.slice(0, 80)}”`;
}

type Since = NonNullable<TalkData['since']>;

function changesSaid(since: Since): string {
  const count = since.lines.length;
  const many = `${count}${since.more ? ' or more' : ''} ${count === 1 ? 'change' : 'changes'}`;
  return `${many} by others since you looked`;
}

/** What others did since this person looked. */
function Since({ since, onRead }: { since: Since; onRead: () => void }) {
  return (
    <div className="since">
      <p className="quiet">You looked {moment(since.at)}.</p>
      <ul className="log">
        {since.lines.map((line) => (
          <li key={line.version}>
            {line.what} <small>{`${line.by}, ${moment(line.at)}`}</small>
          </li>
        ))}
      </ul>
      <button type="button" className="tool" onClick={onRead}>
        Read
      </button>
    </div>
  );
}

function whoSaid(one: TalkData['here'][number]): string {
  if (one.looking) return `${one.name} (has it open)`;
  return one.last ? `${one.name} (${moment(one.last)})` : one.name;
}
