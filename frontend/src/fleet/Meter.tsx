import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { client, newId, type PumpDetail } from '../api/client';
import { DayField } from '../app/DayField';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { day } from '../app/time';
import { grouped } from '../app/words';
import type { Entered } from '../app/works';
import { Struckable } from './Struckable';
import { usePumpChange } from './usePumpChange';

interface NewReading {
  id: string;
  hours: string;
  day: string;
  old_last: string;
  new_first: string;
}

const NOTHING = { hours: '', day: '', old_last: '', new_first: '' };

/** The hours meter: read, replaced, and a slip struck out. */
export function Meter({ page }: { page: PumpDetail }) {
  const [typed, setTyped] = useState(NOTHING);
  const [replaced, setReplaced] = useState(false);
  const identity = useRef(newId());
  const save = usePumpChange(page.line.tag, (body: NewReading & Entered, at) =>
    client.POST('/api/pumps/{tag}/meter', { ...at, body }),
  );
  const put = (name: keyof typeof NOTHING) => (text: string) => {
    // Other numbers are another reading.
    identity.current = newId();
    setTyped((now) => ({ ...now, [name]: text }));
  };
  return (
    <section aria-label="Hours meter">
      <h2>Hours meter {page.rate && <small>{page.rate}</small>}</h2>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (save.isPending) return;
          const swapped = replaced ? {} : { old_last: '', new_first: '' };
          save.mutate(
            { id: identity.current, ...typed, ...swapped },
            {
              onSuccess: () => {
                identity.current = newId();
                setTyped(NOTHING);
                setReplaced(false);
              },
            },
          );
        }}
      >
        <div className="try-check">
          <TextField short label="Reads (h)" keyboard="numeric" value={typed.hours} onChange={put('hours')} />
          <DayField label="Day, if not today" value={typed.day} onChange={put('day')} />
        </div>
        <label className="tick">
          <input type="checkbox" checked={replaced} onChange={() => setReplaced(!replaced)} /> The meter was
          replaced since it was last read
        </label>
        {replaced && (
          <div className="try-check">
            <TextField
              short
              label="The old one ended at (h)"
              keyboard="numeric"
              value={typed.old_last}
              onChange={put('old_last')}
            />
            <TextField
              short
              label="This one began at (h)"
              keyboard="numeric"
              value={typed.new_first}
              onChange={put('new_first')}
            />
          </div>
        )}
        <ProblemNote error={save.error} onConfirm={save.confirm} />
        <Button type="submit" disabled={save.isPending}>
          Save reading
        </Button>
      </form>
      <Struckable
        caption="Readings between overhauls"
        tag={page.line.tag}
        rows={page.meter.map((m) => ({
          ...m,
          said: `${grouped(m.hours)}\u00a0h${m.replaced ? `, ${m.replaced}` : ''}`,
          when: day(m.day),
        }))}
      />
    </section>
  );
}
