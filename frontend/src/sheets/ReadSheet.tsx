import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link, useParams } from 'react-router';
import { client, type ReadLine, type ReadingPage } from '../api/client';
import { meQuery, readingQuery } from '../api/queries';
import type { components } from '../api/schema';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { moment } from '../app/time';
import { useTyped } from '../app/useTyped';
import type { Entered } from '../app/works';
import { useBegin } from './BeginSheet';
import { ManualPages } from './ManualPages';
import '../styles/typing.css';

/** Within that after an answer, a key pressed twice is not an answer to the line after it: nobody has read that yet. */
const AGAIN_MS = 250;

type Given = Omit<components['schemas']['ReadLineRequest'], keyof Entered>;

/** A revision held against the manual, line by line. */
export function ReadSheet() {
  const { slug = '', revision = '' } = useParams();
  const page = useQuery(readingQuery(slug, revision));
  return (
    <div className="page">
      <Loaded query={page} what="the sheet">
        {(data) => <Reading page={data} />}
      </Loaded>
    </div>
  );
}

function Reading({ page }: { page: ReadingPage }) {
  const cache = useQueryClient();
  const { slug, revision, lines } = page;
  const read = useTyped<Given, ReadingPage>(
    (body) =>
      client.POST('/api/sheets/{slug}/{revision}/reading', { params: { path: { slug, revision } }, body }),
    (now) => {
      cache.setQueryData(readingQuery(slug, revision).queryKey, now);
      if (now.read_at) void cache.invalidateQueries();
    },
  );
  const done = lines.filter((line) => line.agrees).length;
  const list = useRef<HTMLOListElement>(null);
  const answeredAt = useRef(-AGAIN_MS);
  const say = (line: ReadLine, agrees: boolean, note: string) => {
    if (agrees && performance.now() - answeredAt.current < AGAIN_MS) return;
    read.mutate(
      { path: line.path, said: line.said, agrees, note },
      {
        onSuccess: () => {
          answeredAt.current = performance.now();
          next(list.current, line.path);
        },
      },
    );
  };
  return (
    <>
      <header className="sheet-head">
        <div>
          <h1>
            {page.title}, revision {revision}: read against the manual
          </h1>
          <p>{standing(page, done)}</p>
        </div>
        {!page.read_at && (
          <Button variant="outline-primary" onClick={() => next(list.current, '')}>
            To the next open line
          </Button>
        )}
        <Link className="btn btn-outline-primary" to={`/sheets/${slug}/${encodeURIComponent(revision)}`}>
          To the sheet
        </Link>
      </header>
      <ProblemNote error={read.error} />
      <div className={page.pages.length ? 'two-columns wide-right' : undefined}>
        {page.pages.length > 0 && <ManualPages pages={page.pages} />}
        <ol className="read-lines" ref={list}>
          {lines.map((line, i) => (
            <li key={line.path}>
              {lines[i - 1]?.section !== line.section && <h2>{line.section}</h2>}
              <ReadRow line={line} page={page} off={read.isPending} onSay={say} />
            </li>
          ))}
        </ol>
      </div>
    </>
  );
}

function standing(page: ReadingPage, done: number): string {
  if (page.read_at)
    return `Read by ${page.read_names}${page.read_alone ? ', who typed some of it' : ''}, ${moment(page.read_at)}.`;
  return `${done} of ${page.lines.length} lines agree with the manual. Nothing is signed on this sheet before all of them do.`;
}

/** The next line that nobody has read takes the keyboard. */
function next(list: HTMLOListElement | null, after: string): void {
  const buttons = [...(list?.querySelectorAll<HTMLButtonElement>('button[data-agrees]') ?? [])];
  const here = buttons.findIndex((one) => one.dataset['agrees'] === after);
  (buttons[here + 1] ?? buttons.find((one) => one.dataset['agrees'] !== after))?.focus();
}

interface RowProps {
  line: ReadLine;
  page: ReadingPage;
  off: boolean;
  onSay: (line: ReadLine, agrees: boolean, note: string) => void;
}

function ReadRow({ line, page, off, onSay }: RowProps) {
  const [differs, setDiffers] = useState(false);
  return (
    <div className={`read-line is-${standingOf(line)}`}>
      <div className="what">
        <b>
          {line.number > 0 && `${line.number} `}
          {line.label}
        </b>
        {line.page && <small>page {line.page}</small>}
      </div>
      <dl>
        {line.cells.map((cell) => (
          <div key={cell.name}>
            {cell.name && <dt>{cell.name}</dt>}
            <dd>{cell.text}</dd>
          </div>
        ))}
      </dl>
      <div className="say">
        <Said line={line} />
        {line.agrees === false && <PutRight page={page} />}
        {isOpen(line, page) && (
          <>
            {!line.agrees && (
              <Button
                variant="outline-primary"
                aria-disabled={off}
                data-agrees={line.path}
                aria-label={`${line.label} agrees`}
                // A key that is held down answers once.
                onKeyDown={(event) => event.repeat && event.preventDefault()}
                onClick={() => !off && onSay(line, true, '')}
              >
                Agrees
              </Button>
            )}
            <Button
              variant={line.agrees ? 'link' : 'outline-secondary'}
              aria-expanded={differs}
              onClick={() => setDiffers(!differs)}
            >
              {line.agrees ? 'It differs after all' : 'Differs'}
            </Button>
          </>
        )}
      </div>
      {differs && (
        <Differs
          off={off}
          onSay={(note) => {
            onSay(line, false, note);
            setDiffers(false);
          }}
        />
      )}
    </div>
  );
}

const standingOf = ({ agrees }: ReadLine): string =>
  agrees ? 'agrees' : agrees === false ? 'differs' : 'open';
/** Whether this person can say something of it now: what was pressed by mistake is taken back while the rest is read. */
const isOpen = (line: ReadLine, page: ReadingPage): boolean => !page.read_at && !line.why_not;

/** Who said what of a line, or why this person cannot. */
function Said({ line }: { line: ReadLine }) {
  if (line.agrees !== null && line.at)
    return (
      <small>
        {line.agrees ? 'Agrees' : `Differs: ${line.note}`}, {line.by}, {moment(line.at)}
      </small>
    );
  return line.why_not ? <small>{line.why_not}</small> : null;
}

function Differs({ off, onSay }: { off: boolean; onSay: (note: string) => void }) {
  const [note, setNote] = useState('');
  return (
    <div className="differs">
      <TextField label="What the manual prints" value={note} maxLength={200} autoFocus onChange={setNote} />
      <Button disabled={!note.trim() || off} onClick={() => onSay(note)}>
        It differs
      </Button>
    </div>
  );
}

/** A lead puts the sheet right; what changes is read again. */
function PutRight({ page }: { page: ReadingPage }) {
  const me = useQuery(meQuery);
  const begin = useBegin();
  if (me.data?.role !== 'lead') return <small>A lead puts it right.</small>;
  return (
    <>
      <Button
        variant="outline-primary"
        disabled={begin.pending}
        onClick={() => begin.from({ sheet: page.slug, revision: page.revision, purpose: 'unread' })}
      >
        Put it right
      </Button>
      <ProblemNote error={begin.error} />
    </>
  );
}
