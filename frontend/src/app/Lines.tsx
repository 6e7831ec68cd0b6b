import type { Line } from '../api/client';
import { WorkingLink } from './WorkingLink';

const WORDS: Record<string, string> = { care: 'with care', ask: 'ask', stop: 'stop' };

/** Results in lines: what it is, the result, its working, and whether the work may go on, by shape and word first. */
export function Lines({ lines }: { lines: Line[] }) {
  if (!lines.length) return null;
  return (
    <dl className="sum-lines">
      {lines.map((line) => (
        <div key={line.name} className={`stands-${line.stand}`}>
          <dt>
            <StandMark stand={line.stand} /> {line.name}
          </dt>
          <dd>
            {WORDS[line.stand] && <b className="stand-word">{WORDS[line.stand]}: </b>}
            {line.text} {line.working && <WorkingLink working={line.working} />}
          </dd>
        </div>
      ))}
    </dl>
  );
}

/** Nothing to say is no mark; care is a triangle, ask an open ring, stop a barred square. */
function StandMark({ stand }: { stand: string }) {
  if (stand === 'good') return null;
  return (
    <svg
      viewBox="0 0 20 20"
      width="18"
      height="18"
      aria-hidden="true"
      className={`stand-mark stand-${stand}`}
    >
      {stand === 'care' && <path d="M10 2 L18.5 17.5 H1.5Z" />}
      {stand === 'ask' && <circle cx="10" cy="10" r="7.5" strokeDasharray="4 3" />}
      {stand === 'stop' && <path d="M3 3 H17 V17 H3Z M3 10 H17" />}
    </svg>
  );
}
