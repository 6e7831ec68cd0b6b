import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import type { Gun } from '../api/client';
import { gunsQuery } from '../api/queries';
import { Listed } from '../app/Listed';
import { day } from '../app/time';
import { useUnit } from '../app/unit';
import { GunForm } from './GunForm';

/** Grease guns with what ten strokes of them weigh. */
export function Guns() {
  const { unit } = useUnit();
  const guns = useInfiniteQuery(gunsQuery(unit, ''));
  const [form, setForm] = useState<Gun | 'new' | null>(null);
  return (
    <section aria-label="Grease guns">
      <div className="sheet-head">
        <h1>Grease guns</h1>
        <Button variant="outline-primary" onClick={() => setForm('new')}>
          Weigh another
        </Button>
      </div>
      <Listed query={guns} what="the grease guns" empty="No gun weighed yet.">
        {(lines) => (
          <ul className="shelf">
            {lines.map((g) => (
              <li key={g.tag} className="counter">
                <span>
                  {g.tag} <small>{g.grease}</small>
                </span>
                <span>
                  {g.ten} in ten strokes <small>{day(g.weighed)}</small>
                </span>
                <button
                  type="button"
                  className="tool"
                  aria-label={`Weigh ${g.tag} again`}
                  onClick={() => setForm(g)}
                >
                  again
                </button>
              </li>
            ))}
          </ul>
        )}
      </Listed>
      {form && (
        <GunForm
          key={form === 'new' ? 'new' : form.tag}
          gun={form === 'new' ? undefined : form}
          onSaved={() => setForm(null)}
        />
      )}
    </section>
  );
}
