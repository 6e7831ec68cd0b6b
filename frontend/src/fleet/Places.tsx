import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { client, newId, type PumpDetail } from '../api/client';
import type { components } from '../api/schema';
import { Choice } from '../app/Choice';
import { DayField } from '../app/DayField';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { day } from '../app/time';
import type { Entered } from '../app/works';
import { Struckable } from './Struckable';
import { usePumpChange } from './usePumpChange';

interface Props {
  page: PumpDetail;
  lead: boolean;
}

/** Where the pump is and was, who has it on loan, and which of its parts came from another or went into one. */
export function Places({ page, lead }: Props) {
  const [open, setOpen] = useState<'' | 'move' | 'part'>('');
  const close = () => setOpen('');
  const { tag } = page.line;
  return (
    <section aria-label="Places and parts">
      <h2>Places and parts</h2>
      {!page.moves.length && !page.parts_moved.length && (
        <p className="quiet">
          It was at {page.line.location} all along, with its own parts, by what is on record.
        </p>
      )}
      <Struckable
        caption="Places"
        tag={tag}
        rows={page.moves.map((one) => ({
          ...one,
          said: `${one.lent ? `lent to ${one.to}${one.back ? `, back by ${day(one.back)}` : ''}` : `from ${one.was} to ${one.to}`}${one.note ? ` (${one.note})` : ''}`,
          when: day(one.day),
        }))}
      />
      <Struckable
        caption="Parts that moved"
        tag={tag}
        rows={page.parts_moved.map((one) => ({
          ...one,
          said: `${one.said}${one.note ? ` (${one.note})` : ''}`,
          when: day(one.day),
        }))}
      />
      {lead && !open && (
        <div className="grid-tools">
          <Button variant="outline-primary" onClick={() => setOpen('move')}>
            {page.line.lent ? 'It is back, or moved on' : 'It was moved, or lent'}
          </Button>
          {page.movable.length > 0 && (
            <Button variant="outline-primary" onClick={() => setOpen('part')}>
              A part went into another pump
            </Button>
          )}
        </div>
      )}
      {open === 'move' && <MoveForm page={page} onHide={close} />}
      {open === 'part' && <PartForm page={page} onHide={close} />}
    </section>
  );
}

interface FormProps {
  page: PumpDetail;
  onHide: () => void;
}

type Move = Omit<components['schemas']['MovePumpRequest'], keyof Entered>;

function MoveForm({ page, onHide }: FormProps) {
  const [texts, setTexts] = useState({ to: '', day: '', note: '', back: '' });
  const [lent, setLent] = useState(false);
  const identity = useRef(newId());
  const save = usePumpChange(page.line.tag, (body: Move & Entered, at) =>
    client.POST('/api/pumps/{tag}/move', { ...at, body }),
  );
  const put = (name: keyof typeof texts) => (text: string) => setTexts({ ...texts, [name]: text });
  return (
    <form
      className="panel"
      aria-label="It was moved"
      onSubmit={(event) => {
        event.preventDefault();
        if (save.isPending) return;
        const body = { id: identity.current, ...texts, back: lent ? texts.back : '', lent };
        save.mutate(body, { onSuccess: onHide });
      }}
    >
      <p>
        It is at {page.line.location}
        {page.line.lent && ', on loan'}.
      </p>
      <TextField label="Where it is now" value={texts.to} maxLength={120} autoFocus onChange={put('to')} />
      <DayField label="Day, if not today" value={texts.day} onChange={put('day')} />
      <label className="tick">
        <input type="checkbox" checked={lent} onChange={() => setLent(!lent)} /> On loan: it belongs here and
        comes back
      </label>
      {lent && <DayField label="Back by, if agreed" value={texts.back} onChange={put('back')} />}
      <TextField label="Why, or who has it" value={texts.note} maxLength={200} onChange={put('note')} />
      <ProblemNote error={save.error} />
      <SaveOrLeave isPending={save.isPending} onHide={onHide} />
    </form>
  );
}

type MovePart = Omit<components['schemas']['MovePartRequest'], keyof Entered>;

const INSTEAD = [
  ['', 'choose'],
  ['new', 'a new part'],
  ['unknown', 'another part, whose life nobody knows'],
  ['nothing', 'nothing yet'],
] as const;

/** A part that goes into another pump takes its sizes and hours with it; here its life ends. */
function PartForm({ page, onHide }: FormProps) {
  const [texts, setTexts] = useState({
    part: page.movable.length === 1 ? (page.movable[0] ?? '') : '',
    taker: '',
    hours: '',
    hours_there: '',
    instead: '',
    day: '',
    note: '',
  });
  const identity = useRef(newId());
  const save = usePumpChange(page.line.tag, (body: MovePart & Entered, at) =>
    client.POST('/api/pumps/{tag}/parts', { ...at, body }),
  );
  const put = (name: keyof typeof texts) => (text: string) => setTexts({ ...texts, [name]: text });
  return (
    <form
      className="panel"
      aria-label="A part went into another pump"
      onSubmit={(event) => {
        event.preventDefault();
        if (!save.isPending)
          save.mutate({ id: identity.current, ...texts } as MovePart, { onSuccess: onHide });
      }}
    >
      <div className="asks">
        <Choice
          label="Part"
          value={texts.part}
          onChange={put('part')}
          choices={[['', 'choose'] as const, ...page.movable.map((part) => [part, part] as const)]}
        />
        <TextField label="Into which pump (tag)" value={texts.taker} maxLength={30} onChange={put('taker')} />
        <TextField
          short
          keyboard="numeric"
          label={`Meter here (${page.counts})`}
          value={texts.hours}
          onChange={put('hours')}
        />
        <TextField
          short
          keyboard="numeric"
          label="Meter there"
          value={texts.hours_there}
          onChange={put('hours_there')}
        />
        <Choice label="In its place here" value={texts.instead} onChange={put('instead')} choices={INSTEAD} />
        <DayField label="Day, if not today" value={texts.day} onChange={put('day')} />
      </div>
      <TextField label="Why" value={texts.note} maxLength={200} onChange={put('note')} />
      <ProblemNote error={save.error} onConfirm={save.confirm} />
      <SaveOrLeave isPending={save.isPending} onHide={onHide} />
    </form>
  );
}

function SaveOrLeave({ isPending, onHide }: { isPending: boolean; onHide: () => void }) {
  return (
    <>
      <Button type="submit" disabled={isPending}>
        Save
      </Button>{' '}
      <Button variant="outline-secondary" onClick={onHide}>
        Leave it
      </Button>
    </>
  );
}
