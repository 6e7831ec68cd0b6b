import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { client, newId, type PumpDetail } from '../api/client';
import type { components } from '../api/schema';
import { DayField } from '../app/DayField';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { day } from '../app/time';
import { useUnit } from '../app/unit';
import { grouped } from '../app/words';
import type { Entered } from '../app/works';
import { Struckable } from './Struckable';
import { usePumpChange } from './usePumpChange';

type Given = Omit<components['schemas']['AddEarlierRequest'], keyof Entered>;

/** What the pump was before this record: overhauls from the works’ own books. */
export function History({ page, lead }: { page: PumpDetail; lead: boolean }) {
  const [open, setOpen] = useState(false);
  return (
    <section aria-label="Before this record">
      <h2>Before this record</h2>
      {page.earlier.length === 0 && (
        <p className="quiet">No earlier overhaul is entered: wear begins with the first job.</p>
      )}
      <Struckable
        caption="Earlier overhauls"
        tag={page.line.tag}
        rows={page.earlier.map((one) => ({
          ...one,
          said: `${grouped(one.hours)}\u00a0h: ${said(one.sizes, 'part')}${one.changed ? `, ${one.changed} renewed` : ''}; ${one.source}`,
          when: day(one.day),
        }))}
      />
      {lead && !open && (
        <div className="grid-tools">
          <Button variant="outline-primary" onClick={() => setOpen(true)}>
            Enter an earlier overhaul
          </Button>
        </div>
      )}
      {open && <EarlierForm page={page} onHide={() => setOpen(false)} />}
    </section>
  );
}

const said = (count: number, what: string): string => `${count} ${what}${count === 1 ? '' : 's'}`;

interface FormProps {
  page: PumpDetail;
  onHide: () => void;
}

interface Part {
  found: string;
  left: string;
  changed: boolean;
}

const NOTHING: Part = { found: '', left: '', changed: false };

/** An overhaul from the works’ own books: its day, its hours, and the sizes that were written down. */
function EarlierForm({ page, onHide }: FormProps) {
  const { unit } = useUnit();
  const [texts, setTexts] = useState({
    day: '',
    hours: '',
    pressure: page.entered.pressure,
    speed: page.entered.speed,
    source: '',
  });
  const [parts, setParts] = useState<Record<string, Part>>({});
  const identity = useRef({ id: newId(), of: '' });
  const save = usePumpChange(page.line.tag, (body: Given & Entered, at) =>
    client.POST('/api/pumps/{tag}/earlier', { ...at, body }),
  );
  const send = () => {
    if (save.isPending) return;
    const given = Object.entries(parts)
      .filter(([, part]) => part.found.trim() || part.left.trim() || part.changed)
      .map(([feature, part]) => ({ feature, ...part }));
    const body = { ...texts, parts: given };
    const of = JSON.stringify(body);
    // Other numbers are another overhaul.
    if (identity.current.of !== of) identity.current = { id: newId(), of };
    save.mutate({ id: identity.current.id, ...body }, { onSuccess: onHide });
  };
  return (
    <form
      className="panel"
      aria-label="An earlier overhaul"
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      <When texts={texts} onPut={(name, text) => setTexts({ ...texts, [name]: text })} />
      <Sizes
        page={page}
        unit={unit}
        parts={parts}
        onPart={(key, part) => setParts({ ...parts, [key]: part })}
      />
      <p className="quiet">
        A book tells the digits and no more: the last of them counts as how far the size may be off.
      </p>
      <ProblemNote error={save.error} onConfirm={save.confirm} />
      <Button type="submit" disabled={save.isPending}>
        Save
      </Button>{' '}
      <Button variant="outline-secondary" onClick={onHide}>
        Leave it
      </Button>
    </form>
  );
}

type Texts = Record<'day' | 'hours' | 'pressure' | 'speed' | 'source', string>;

interface WhenProps {
  texts: Texts;
  onPut: (name: keyof Texts, text: string) => void;
}

/** When it was, what the pump ran at until then, and where that is written. */
function When({ texts, onPut }: WhenProps) {
  const of = (name: keyof Texts) => ({
    value: texts[name],
    onChange: (text: string) => onPut(name, text),
  });
  return (
    <>
      <div className="asks">
        <DayField label="Day" {...of('day')} />
        <TextField short label="Meter read (h)" keyboard="numeric" {...of('hours')} />
        <TextField short label="It ran at, pressure" {...of('pressure')} />
        <TextField short label="It ran at, speed" {...of('speed')} />
      </div>
      <TextField label="Where it is written" maxLength={120} {...of('source')} />
    </>
  );
}

interface SizesProps {
  page: PumpDetail;
  unit: string;
  parts: Record<string, Part>;
  onPart: (key: string, part: Part) => void;
}

/** The parts of the pump, each with what was written down of it. */
function Sizes({ page, unit, parts, onPart }: SizesProps) {
  return (
    <table className="ruled typed-sizes">
      <thead>
        <tr>
          <th scope="col">Part</th>
          <th scope="col">Found ({unit})</th>
          <th scope="col">Left ({unit})</th>
          <th scope="col">Renewed</th>
        </tr>
      </thead>
      <tbody>
        {page.measured.map(({ key, number, name }) => {
          const part = parts[key] ?? NOTHING;
          const cell = (which: 'found' | 'left') => (
            <td>
              <input
                type="text"
                inputMode="decimal"
                autoComplete="off"
                maxLength={40}
                aria-label={`${name}, ${which}`}
                value={part[which]}
                onChange={(event) => onPart(key, { ...part, [which]: event.target.value })}
              />
            </td>
          );
          return (
            <tr key={key}>
              <th scope="row">
                {number} {name}
              </th>
              {cell('found')}
              {cell('left')}
              <td>
                <input
                  type="checkbox"
                  aria-label={`${name}, renewed`}
                  checked={part.changed}
                  onChange={() => onPart(key, { ...part, changed: !part.changed })}
                />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
