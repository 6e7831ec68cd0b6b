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

/** Who is on the job, what they wrote one another, and what changed since this person looked: one line, opened when wanted. */
export function Talk({ job }: { job: Job }) {
  const { number, version } = job;
  const talk = useQuery(talkQuery(number));
  const [open, setOpen] = useState(false);
  // What changed stays on the page until it is read, whatever is fetched meanwhile.
  const [since, setSince] = useState<TalkData['since'] | undefined>();
  if (since === undefined && talk.data) setSince(talk.data.since);
  useEffect(() => {
    const first = window.setTimeout(() => void looked(number, version), READ_MS);
    const again = window.setInterval(() => void looked(number, version), AGAIN_MS);
    return () => {
      window.clearTimeout(first);
      window.clearInterval(again);
    };
  }, [number, version]);
  if (!talk.data) return null;
  const { here, notes } = talk.data;
  const standing = notes.filter((note) => !note.struck_reason);
  const waiting = standing.find((note) => note.may_take);
  return (
    <div className="talk">
      <p>
        {here.length > 0 && <span>On it: {here.map(whoSaid).join(', ')}</span>}
        <button type="button" className="tool" aria-expanded={open} onClick={() => setOpen(!open)}>
          {standing.length ? `Notes (${standing.length})` : 'Notes, hand over'}
        </button>
        {waiting && (
          <b className="late-word">
            {waiting.by} hands it over{waiting.to ? ` to you` : ''}: “{waiting.text.slice(0, 80)}”
          </b>
        )}
      </p>
      {since && (
        <Since
          since={since}
          onRead={() => {
            void looked(number, version);
            setSince(null);
          }}
        />
      )}
      {open && (
        <Suspense fallback={<p className="quiet">Reading the notes …</p>}>
          <TalkPanel job={job} talk={talk.data} />
        </Suspense>
      )}
    </div>
  );
}

/** What others did since this person looked. */
function Since({ since, onRead }: { since: NonNullable<TalkData['since']>; onRead: () => void }) {
  const count = since.lines.length;
  return (
    <details className="since">
      <summary>
        {count}
        {since.more ? ' or more' : ''} {count === 1 ? 'change' : 'changes'} by others since you looked,{' '}
        {moment(since.at)}
      </summary>
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
    </details>
  );
}

function whoSaid(one: TalkData['here'][number]): string {
  if (one.looking) return `${one.name} (has it open)`;
  return one.last ? `${one.name} (${moment(one.last)})` : one.name;
}
