import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { NavLink, useParams } from 'react-router';
import type { Sum } from '../api/client';
import { sumQuery, sumsQuery } from '../api/queries';
import { Lines } from '../app/Lines';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { useIntoView } from '../app/useIntoView';
import { carried, useDrafts, useUnit, type Draft } from '../app/unit';
import { capital } from '../app/words';
import { useEntered } from '../app/works';

/** Everything that can be calculated without a job, one beside the other. */
export function Sums() {
  const { unit } = useUnit();
  const { key = '' } = useParams();
  const sums = useQuery(sumsQuery(unit));
  const [wanted, setWanted] = useState('');
  return (
    <div className="page sums">
      <Loaded query={sums} what="the quick figures">
        {(all) => {
          const chosen = all.find((s) => s.key === key) ?? all[0];
          return (
            <>
              <nav aria-label="Quick figures">
                <h1>Quick figures</h1>
                <TextField label="Find" value={wanted} onChange={setWanted} />
                {found(all, wanted).length === 0 && (
                  <p className="quiet">Nothing asks for or is called that.</p>
                )}
                <ul className="lines">
                  {found(all, wanted).map((s) => (
                    <li key={s.key}>
                      <NavLink to={`/toolbox/sums/${s.key}`} aria-current={s === chosen ? 'page' : undefined}>
                        {s.name}
                      </NavLink>
                    </li>
                  ))}
                </ul>
              </nav>
              {chosen ? <SumForm key={chosen.key} sum={chosen} inUnit={!sums.isPlaceholderData} /> : null}
            </>
          );
        }}
      </Loaded>
    </div>
  );
}

/** By its name, or by what it asks for. */
function found(all: Sum[], wanted: string): Sum[] {
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  const text = (s: Sum) => [s.name, s.key, ...s.asks.map((a) => a.name)].join(' ').toLowerCase();
  return all.filter((s) => words.every((w) => text(s).includes(w)));
}

interface FormProps {
  sum: Sum;
  /** Whether what it asks for is told in the unit that is on; just after the switch it is not yet. */
  inUnit: boolean;
}

function SumForm({ sum, inUnit }: FormProps) {
  const entered = useEntered();
  const signOf = (key: string) => sum.asks.find((a) => a.key === key)?.unit ?? '';
  const [typed, put] = useDrafts(Object.fromEntries(sum.asks.map((a) => [a.key, a.usual])), signOf);
  const [asked, setAsked] = useState<Record<string, Draft> | null>(null);
  const given = mapped(asked ?? {}, (draft, key) => carried(draft, signOf(key)));
  const result = useQuery({ ...sumQuery(sum.key, given, entered()), enabled: asked !== null && inUnit });
  const answer = useIntoView<HTMLDivElement>(result.data);
  return (
    <section aria-label={sum.name}>
      <h2>{sum.name}</h2>
      <form
        className="panel"
        onSubmit={(event) => {
          event.preventDefault();
          setAsked(mapped(typed, (text, key) => ({ text, sign: signOf(key) })));
        }}
      >
        <div className="field-grid">
          {sum.asks.map((a) =>
            a.choices.length ? (
              <label className="field" key={a.key}>
                {capital(a.name)}
                <select value={typed[a.key]} onChange={(event) => put(a.key, event.target.value)}>
                  {!a.usual && <option value="">choose</option>}
                  {a.choices.map((c) => (
                    <option key={c.key} value={c.key}>
                      {c.name}
                    </option>
                  ))}
                </select>
              </label>
            ) : (
              <TextField
                key={a.key}
                label={`${capital(a.name)}${a.unit ? ` (${a.unit})` : ''}${a.optional ? ', if known' : ''}`}
                value={typed[a.key] ?? ''}
                maxLength={a.long ? 400 : 40}
                onChange={(text) => put(a.key, text)}
              />
            ),
          )}
        </div>
        <Button type="submit">Calculate</Button>
      </form>
      <ProblemNote error={result.error} />
      <div className="answer" ref={answer}>
        {result.data && <Lines lines={result.data} />}
      </div>
      <p className="quiet">
        Nothing here is recorded. A number may carry its unit: 0.035 mm, 1.4 thou, 60 lbf.ft.
      </p>
    </section>
  );
}

const mapped = <T, U>(of: Record<string, T>, by: (value: T, key: string) => U): Record<string, U> =>
  Object.fromEntries(Object.entries(of).map(([key, value]) => [key, by(value, key)]));
