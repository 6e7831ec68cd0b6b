import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link, useNavigate } from 'react-router';
import { client, unwrap } from '../api/client';
import { draftsQuery, familiesQuery, meQuery } from '../api/queries';
import { Listed } from '../app/Listed';
import { ProblemNote } from '../app/ProblemNote';
import { moment } from '../app/time';
import { useUnit } from '../app/unit';
import { useEntered } from '../app/works';

/** A sheet typed from the printed manual: the family first, and how the manual writes lengths. */
export function BeginSheet() {
  const families = useQuery(familiesQuery);
  const { unit } = useUnit();
  const [family, setFamily] = useState('');
  const [system, setSystem] = useState<'mm' | 'in'>(unit === 'mm' ? 'mm' : 'in');
  const begin = useBegin();
  return (
    <section className="panel" aria-label="Type a sheet">
      <h2>Type a sheet from the manual</h2>
      <label className="field">
        Family
        <select value={family} onChange={(event) => setFamily(event.target.value)}>
          <option value="">choose</option>
          {families.data?.map((one) => (
            <option key={one.key} value={one.key}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      <label className="field">
        The manual prints lengths in
        <select value={system} onChange={(event) => setSystem(event.target.value === 'in' ? 'in' : 'mm')}>
          <option value="mm">millimetres</option>
          <option value="in">inches</option>
        </select>
      </label>
      <p className="said">A number typed with its unit, and a column with its own, are read as they say.</p>
      <ProblemNote error={begin.error ?? families.error} />
      <Button disabled={!family || begin.pending} onClick={() => begin.from({ family }, system)}>
        Begin typing
      </Button>
    </section>
  );
}

interface From {
  family?: string;
  sheet?: string;
  revision?: string;
  purpose?: string;
}

/** Begins a draft and goes to it. */
// eslint-disable-next-line react-refresh/only-export-components -- the page of a sheet begins drafts of it, too
export function useBegin() {
  const navigate = useNavigate();
  const cache = useQueryClient();
  const entered = useEntered();
  const [error, setError] = useState<Error | null>(null);
  const [pending, setPending] = useState(false);
  const from = (of: From, unit?: 'mm' | 'in') => {
    setPending(true);
    const how = entered();
    const body = {
      family: '',
      sheet: '',
      revision: '',
      purpose: 'new',
      ...of,
      ...how,
      unit: unit ?? how.unit,
    };
    unwrap(client.POST('/api/sheet-drafts', { body }))
      .then((draft) => {
        void cache.invalidateQueries({ queryKey: ['drafts'] });
        void navigate(`/sheets/typing/${draft.state.id}`);
      })
      .catch(setError)
      .finally(() => setPending(false));
  };
  return { from, error, pending };
}

/** Sheets nobody has kept yet: a lead goes on with them. */
export function Drafts() {
  const me = useQuery(meQuery);
  const drafts = useInfiniteQuery({ ...draftsQuery, enabled: me.data?.role === 'lead' });
  if (!drafts.data?.pages[0]?.lines.length) return null;
  return (
    <>
      <h2 className="apart">Being typed</h2>
      <Listed query={drafts} what="the drafts" empty="">
        {(lines) => (
          <ul className="lines">
            {lines.map((one) => (
              <li key={one.id}>
                <Link to={`/sheets/typing/${one.id}`}>
                  <b>{one.title || 'A sheet without a name yet'}</b>
                  <small>
                    {one.family}
                    {one.base && `, from ${one.base}`}. Begun by {one.by}, saved {moment(one.saved_at)}.
                  </small>
                </Link>
              </li>
            ))}
          </ul>
        )}
      </Listed>
    </>
  );
}
