import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { useForm } from 'react-hook-form';
import { client, newId, type PumpDetail } from '../api/client';
import { ProblemNote } from '../app/ProblemNote';
import { day } from '../app/time';
import { grouped } from '../app/words';
import type { Entered } from '../app/works';
import { Struckable } from './Struckable';
import { usePumpChange } from './usePumpChange';

interface Typed {
  hours: string;
  day: string;
  old_last: string;
  new_first: string;
}

const NOTHING: Typed = { hours: '', day: '', old_last: '', new_first: '' };

/** The meter: read, replaced, and a slip struck out. What counts starts or a volume is shown in hours, too. */
export function Meter({ page }: { page: PumpDetail }) {
  return (
    <section aria-label="Meter">
      <h2>Meter {page.rate && <small>{page.rate}</small>}</h2>
      {page.meter_note && <p className="notice">{page.meter_note}</p>}
      <ReadForm tag={page.line.tag} counts={page.counts} />
      <Struckable
        caption="Readings between overhauls"
        tag={page.line.tag}
        rows={page.meter.map((m) => ({
          ...m,
          said: `${grouped(m.hours)}\u00a0h${m.read ? ` (${m.read})` : ''}${m.replaced ? `, ${m.replaced}` : ''}`,
          when: day(m.day),
        }))}
      />
    </section>
  );
}

function ReadForm({ tag, counts }: { tag: string; counts: string }) {
  const [replaced, setReplaced] = useState(false);
  const { register, handleSubmit, reset } = useForm<Typed>({ defaultValues: NOTHING });
  // Other numbers are another reading.
  const identity = useRef({ id: newId(), of: '' });
  const save = usePumpChange(tag, (body: Typed & { id: string } & Entered, at) =>
    client.POST('/api/pumps/{tag}/meter', { ...at, body }),
  );
  const send = (typed: Typed) => {
    if (save.isPending) return;
    const body = replaced ? typed : { ...typed, old_last: '', new_first: '' };
    const of = JSON.stringify(body);
    if (identity.current.of !== of) identity.current = { id: newId(), of };
    save.mutate(
      { id: identity.current.id, ...body },
      {
        onSuccess: () => {
          identity.current = { id: newId(), of: '' };
          reset(NOTHING);
          setReplaced(false);
        },
      },
    );
  };
  const hours = { type: 'text', inputMode: 'numeric', autoComplete: 'off', maxLength: 40 } as const;
  return (
    <form onSubmit={(event) => void handleSubmit(send)(event)}>
      <div className="try-check">
        <label className="field short">
          Reads ({counts})
          <input {...hours} {...register('hours')} />
        </label>
        <label className="field">
          Day, if not today
          <input type="date" {...register('day')} />
        </label>
      </div>
      <label className="tick">
        <input type="checkbox" checked={replaced} onChange={() => setReplaced(!replaced)} /> The meter was
        replaced since it was last read
      </label>
      {replaced && (
        <div className="try-check">
          <label className="field short">
            The old one ended at ({counts})
            <input {...hours} {...register('old_last')} />
          </label>
          <label className="field short">
            This one began at ({counts})
            <input {...hours} {...register('new_first')} />
          </label>
        </div>
      )}
      <ProblemNote error={save.error} onConfirm={save.confirm} />
      <Button type="submit" disabled={save.isPending}>
        Save reading
      </Button>
    </form>
  );
}
