import { useState } from 'react';
import type { Job, Stack } from '../../api/client';
import { StackDrawing } from '../../drawing/StackDrawing';
import { StrikeOut } from '../job/StrikeOut';
import { useChange } from '../job/useJob';
import { PartInHand } from './PartInHand';

/** A stack, part by part: the one in hand with its direction, and what is in. */
export function StackTask({ job, view: stack }: { job: Job; view: Stack }) {
  const [looked, setLooked] = useState<{ key: string; next: string } | null>(null);
  // What is looked at stays until the stack goes on.
  const key = looked?.next === stack.next ? looked.key : stack.next;
  const part = stack.parts.find((p) => p.key === key);
  const place = stack.parts.findIndex((p) => p.key === key) + 1;
  const own = stack.carriers.findIndex((c) => c.name === part?.on);
  // The sub-assembly of the part in hand, until another is looked at; all together once it is complete.
  const [turned, setTurned] = useState<{ to: number; of: string } | null>(null);
  const shown = turned?.of === key ? turned.to : part ? own : stack.carriers.length;
  return (
    <section className="stack-work" aria-label={stack.name}>
      <div className="work-head">
        <h2>{stack.name}</h2>
        {stack.parts.some((p) => p.lines.length > 0) && <Lubricant job={job} />}
      </div>
      {stack.advice && !job.building.lubricant && <p className="quiet">{stack.advice}</p>}
      {stack.carriers.length > 1 && (
        <Carriers stack={stack} shown={shown} onShow={(to) => setTurned({ to, of: key })} />
      )}
      <StackDrawing
        stack={stack}
        carrier={stack.carriers[shown] ?? null}
        chosen={key}
        onChoose={(chosen) => setLooked({ key: chosen, next: stack.next })}
      />
      {part ? (
        <PartInHand
          key={part.key}
          job={job}
          stack={stack}
          part={part}
          place={`${place} of ${stack.parts.length}`}
        />
      ) : (
        <p className="all-done">All {stack.parts.length} in.</p>
      )}
      <PartList job={job} stack={stack} />
    </section>
  );
}

/** The sub-assemblies, each with how many of its parts are in, and all of them together. */
function Carriers({ stack, shown, onShow }: { stack: Stack; shown: number; onShow: (to: number) => void }) {
  const done = (name: string) => stack.parts.filter((p) => p.on === name && p.fitted).length;
  const of = (name: string) => stack.parts.filter((p) => p.on === name).length;
  return (
    <div className="choices carriers" role="group" aria-label="Sub-assemblies">
      {stack.carriers.map((carrier, i) => (
        <button
          key={carrier.name}
          type="button"
          className="tool"
          aria-pressed={shown === i}
          onClick={() => onShow(i)}
        >
          {carrier.name} {done(carrier.name)}/{of(carrier.name)}
        </button>
      ))}
      <button
        type="button"
        className="tool"
        aria-pressed={shown === stack.carriers.length}
        onClick={() => onShow(stack.carriers.length)}
      >
        Together
      </button>
    </div>
  );
}

/** What is on the bench decides which elastomers may meet it. */
function Lubricant({ job }: { job: Job }) {
  const say = useChange('on-the-bench', job.number);
  const { lubricant, lubricants } = job.building;
  return (
    <label className="inline-field">
      Lubricant on the bench{' '}
      <select
        value={(say.isPending && say.variables.change.lubricant) || lubricant}
        disabled={job.signed !== null}
        onChange={(event) => say.mutate({ lubricant: event.target.value })}
      >
        <option value="">not said</option>
        {lubricants.map((m) => (
          <option key={m.key} value={m.key}>
            {m.name}
          </option>
        ))}
      </select>
    </label>
  );
}

function PartList({ job, stack }: { job: Job; stack: Stack }) {
  return (
    <>
      <ol className="part-list">
        {stack.parts.map((part) => (
          <li key={part.key} className={part.key === stack.next ? 'next' : part.fitted ? 'in' : ''}>
            <span>
              {part.name}
              {part.directions.length > 0 && <small> {part.directions.join('; ')}</small>}
            </span>
            {part.fitted && (
              <small>
                {part.reused ? 'the old one, ' : ''}
                {part.by}
                <StrikeOut
                  job={job}
                  kind="part"
                  record={part.id}
                  what={part.name}
                  warns="What came after it comes out, too."
                >
                  take out again
                </StrikeOut>
              </small>
            )}
          </li>
        ))}
      </ol>
      <p className="quiet">Where the maker's manual prints another order or direction, the manual rules.</p>
    </>
  );
}
