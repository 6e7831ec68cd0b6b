import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Job, type Stack, type StackPart } from '../../api/client';
import { useKeys } from '../../app/keys';
import { Lines } from '../../app/Lines';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { moment } from '../../app/time';
import { StackDrawing } from '../../drawing/StackDrawing';
import { StrikeOut } from '../job/StrikeOut';
import { useChange } from '../job/useJob';
import { useUnread } from '../job/useUnread';
import { SmallPicture } from './PictureTask';

/** A stack, part by part: the one in hand with its direction, and what is in. */
export function StackTask({ job, view: stack }: { job: Job; view: Stack }) {
  const [looked, setLooked] = useState<{ key: string; next: string } | null>(null);
  // What is looked at stays until the stack goes on.
  const key = looked?.next === stack.next ? looked.key : stack.next;
  const part = stack.parts.find((p) => p.key === key);
  const place = stack.parts.findIndex((p) => p.key === key) + 1;
  return (
    <section className="stack-work" aria-label={stack.name}>
      <div className="work-head">
        <h2>{stack.name}</h2>
        {stack.parts.some((p) => p.lines.length > 0) && <Lubricant job={job} />}
      </div>
      {stack.advice && !job.building.lubricant && <p className="quiet">{stack.advice}</p>}
      <StackDrawing
        stack={stack}
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

interface PartProps {
  job: Job;
  stack: Stack;
  part: StackPart;
  place: string;
}

function PartInHand({ job, stack, part, place }: PartProps) {
  const fit = useChange('parts', job.number);
  const [confirmed, setConfirmed] = useState<string[]>([]);
  const [reused, setReused] = useState(false);
  const [reason, setReason] = useState('');
  const open = !part.fitted && job.signed === null;
  const asked = part.lines.some((l) => l.status === 'ask');
  const isNext = part.key === stack.next;
  const toConfirm = part.directions.find((d) => !confirmed.includes(d));
  const toggle = (direction: string) =>
    setConfirmed((now) =>
      now.includes(direction) ? now.filter((d) => d !== direction) : [...now, direction],
    );
  const isUnread = useUnread();
  const send = () => {
    // Where nothing has to be confirmed, a double press must not tick the part that comes up in the same place.
    if (fit.isPending || (part.directions.length === 0 && isUnread())) return;
    fit.mutate({
      id: newId(),
      stack: stack.place,
      part: part.key,
      confirmed: !toConfirm,
      reused,
      reason,
    });
  };
  useKeys(
    open
      ? [
          ...(toConfirm ? [{ key: 'c', label: 'confirm direction', run: () => toggle(toConfirm) }] : []),
          { key: 'f', label: 'fitted', run: send },
        ]
      : [],
  );
  const picture = job.building.pictures.find((p) => p.key === part.picture);
  return (
    <article className={`part-in-hand${isNext ? '' : ' not-next'}`} aria-label="Part in hand">
      <div className="part-head">
        <p className="step-text">{part.name}</p>
        <p className="tag-line">
          {place}
          {part.must_be_new ? ' · new every time' : part.fresh ? ' · a new one, by Decide' : ''}
          {open && !isNext ? ' · not its turn yet' : ''}
        </p>
      </div>
      {picture && <SmallPicture picture={picture} mirrored={part.points === 'rotor'} />}
      {part.note && <p>{part.note}</p>}
      <Lines lines={part.lines} />
      {part.directions.length > 0 && (
        <ul className="directions">
          {part.directions.map((direction) => (
            <li key={direction}>
              <label>
                <input
                  type="checkbox"
                  checked={part.fitted || confirmed.includes(direction)}
                  disabled={!open}
                  onChange={() => toggle(direction)}
                />
                {direction}
              </label>
            </li>
          ))}
        </ul>
      )}
      {part.fitted && <FittedBy part={part} />}
      {open && (
        <>
          {(asked || (reused && part.must_be_new)) && (
            <TextField
              label={
                asked
                  ? 'Who was asked, and what they said'
                  : `Why this ${part.name.toLowerCase()} is used again`
              }
              value={reason}
              maxLength={300}
              onChange={setReason}
              onEnter={send}
            />
          )}
          <div className="choices">
            <Button size="lg" disabled={fit.isPending} onClick={send}>
              {reused ? 'Fitted, the old one' : 'Fitted'}
            </Button>
            <button type="button" className="tool" aria-pressed={reused} onClick={() => setReused(!reused)}>
              The old one goes back
            </button>
          </div>
          <ProblemNote error={fit.error} />
        </>
      )}
    </article>
  );
}

function FittedBy({ part }: { part: StackPart }) {
  return (
    <p className="quiet">
      {part.reused ? 'The old one, fitted again' : 'Fitted'} by {part.by}
      {part.at ? `, ${moment(part.at)}` : ''}
      {part.reason ? `: ${part.reason}` : ''}.
    </p>
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
