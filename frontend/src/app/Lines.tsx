import type { Line } from '../api/client';
import { WorkingLink } from './WorkingLink';

const WORDS: Record<string, string> = { care: 'with care', ask: 'ask', stop: 'stop' };

/** Results in lines: what it is, the result, its working, and whether the work may go on, by shape and word first. */
export function Lines({ lines }: { lines: Line[] }) {
  if (!lines.length) return null;
  return (
    <dl className="sum-lines">
      {lines.map((line) => (
        <div key={line.name} className={`stands-${line.status}`}>
          <dt>
            <StatusMark status={line.status} /> {line.name}
          </dt>
          <dd>
            {WORDS[line.status] && <b className="status-word">{WORDS[line.status]}: </b>}
            {line.text} {line.working && <WorkingLink working={line.working} />}
          </dd>
        </div>
      ))}
    </dl>
  );
}

/** Nothing to say is no mark; care is a triangle, ask an open ring, stop a barred square. */
function StatusMark({ status }: { status: string }) {
  if (status === 'good') return null;
  return (
    <svg
      viewBox="0 0 20 20"
      width="18"
      height="18"
      aria-hidden="true"
      className={`status-mark status-${status}`}
    >
      {status === 'care' && <path d="M10 2 L18.5 17.5 H1.5Z" />}
      {status === 'ask' && <circle cx="10" cy="10" r="7.5" strokeDasharray="4 3" />}
      {status === 'stop' && <path d="M3 3 H17 V17 H3Z M3 10 H17" />}
    </svg>
  );
}
