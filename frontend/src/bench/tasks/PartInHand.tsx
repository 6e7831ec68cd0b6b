import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Job, type Stack, type StackPart } from '../../api/client';
import { useKeys } from '../../app/keys';
import { Lines } from '../../app/Lines';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { moment } from '../../app/time';
import { useChange } from '../job/useJob';
import { useUnread } from '../job/useUnread';
import { SmallPicture } from './PictureTask';

interface PartProps {
  job: Job;
  stack: Stack;
  part: StackPart;
  place: string;
}

/** The part in hand: its direction, what its elastomer meets, and the tick that it is in. */
export function PartInHand({ job, stack, part, place }: PartProps) {
  const fitting = useFitting(job, stack, part);
  const picture = job.building.pictures.find((p) => p.key === part.picture);
  const isNext = part.key === stack.next;
  const news = part.must_be_new ? ' · new every time' : part.fresh ? ' · a new one, by Decide' : '';
  return (
    <article className={`part-in-hand${isNext ? '' : ' not-next'}`} aria-label="Part in hand">
      <div className="part-head">
        <p className="step-text">{part.name}</p>
        <p className="tag-line">
          {place}
          {stack.carriers.length > 1 ? ` · ${part.on.toLowerCase()}` : ''}
          {news}
          {fitting.open && !isNext ? ' · not its turn yet' : ''}
        </p>
      </div>
      {picture && <SmallPicture picture={picture} mirrored={part.points === 'rotor'} />}
      {part.lubricant && <p>Lubricant: {part.lubricant}.</p>}
      {part.note && <p>{part.note}</p>}
      <Lines lines={part.lines} />
      <Directions part={part} fitting={fitting} />
      {part.fitted && <FittedBy part={part} />}
      {fitting.open && <FitForm part={part} fitting={fitting} />}
    </article>
  );
}

/** Ticks a part: its directions confirmed, new or the old one, with the reason where one is asked. */
function useFitting(job: Job, stack: Stack, part: StackPart) {
  const fit = useChange('parts', job.number);
  const [confirmed, setConfirmed] = useState<string[]>([]);
  const [reused, setReused] = useState(false);
  const [reason, setReason] = useState('');
  const open = !part.fitted && job.signed === null;
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
  return { open, confirmed, toggle, reused, setReused, reason, setReason, send, fit };
}

type Fitting = ReturnType<typeof useFitting>;

function Directions({ part, fitting }: { part: StackPart; fitting: Fitting }) {
  if (!part.directions.length) return null;
  return (
    <ul className="directions">
      {part.directions.map((direction) => (
        <li key={direction}>
          <label>
            <input
              type="checkbox"
              checked={part.fitted || fitting.confirmed.includes(direction)}
              disabled={!fitting.open}
              onChange={() => fitting.toggle(direction)}
            />
            {direction}
          </label>
        </li>
      ))}
    </ul>
  );
}

function FitForm({ part, fitting }: { part: StackPart; fitting: Fitting }) {
  const { reused, setReused, reason, setReason, send, fit } = fitting;
  const asked = part.lines.some((l) => l.status === 'ask');
  return (
    <>
      {(asked || (reused && part.must_be_new)) && (
        <TextField
          label={
            asked ? 'Who was asked, and what they said' : `Why this ${part.name.toLowerCase()} is used again`
          }
          value={reason}
          maxLength={300}
          onChange={setReason}
          onEnter={send}
        />
      )}
      <div className="choices">
        <Button size="lg" disabled={fit.isPending} onClick={send}>
          {part.shape === 'out'
            ? 'Out'
            : part.shape === 'tool'
              ? 'In'
              : reused
                ? 'Fitted, the old one'
                : 'Fitted'}
        </Button>
        {part.shape !== 'out' && part.shape !== 'tool' && (
          <button type="button" className="tool" aria-pressed={reused} onClick={() => setReused(!reused)}>
            The old one goes back
          </button>
        )}
      </div>
      <ProblemNote error={fit.error} />
    </>
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
