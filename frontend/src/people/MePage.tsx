import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { client, unwrap, type People, type Person } from '../api/client';
import { peopleQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { moment } from '../app/time';

/** One's own PIN; and for a lead, who has one, and clearing it for who forgot it. */
export function MePage() {
  const people = useQuery(peopleQuery);
  return (
    <div className="page">
      <Loaded query={people} what="the people">
        {(shown) => (
          <div className="two-columns">
            <OwnPin me={shown.me} />
            {shown.people.length > 0 && <Everybody shown={shown} />}
          </div>
        )}
      </Loaded>
    </div>
  );
}

function usePeople<T>(send: (given: T) => Promise<People>) {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: send,
    retry: false,
    onSuccess: (people) => cache.setQueryData(peopleQuery.queryKey, people),
  });
}

function OwnPin({ me }: { me: Person }) {
  const [password, setPassword] = useState('');
  const [pin, setPin] = useState('');
  const [again, setAgain] = useState('');
  const save = usePeople((body: { password: string; pin: string }) =>
    unwrap(client.POST('/api/people/pin', { body })),
  );
  const differs = again !== '' && pin !== again;
  return (
    <section aria-label="Your PIN">
      <h1>{me.name}</h1>
      <p>
        Your PIN says that it is you at a signature, an amendment, and where a lead goes past a rule.{' '}
        {me.has_pin ? 'You have one.' : 'You have none yet: without it nothing is signed.'}
      </p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (!pin || pin !== again) return;
          save.mutate(
            { password, pin },
            {
              onSuccess: () => {
                setPassword('');
                setPin('');
                setAgain('');
              },
            },
          );
        }}
      >
        <label className="field">
          Your password
          <input
            type="password"
            autoComplete="current-password"
            value={password}
            onChange={(event) => setPassword(event.target.value)}
          />
        </label>
        <Digits label="New PIN, 4 to 8 digits" value={pin} onChange={setPin} />
        <Digits label="The same again" value={again} onChange={setAgain} />
        {differs && <p className="warning">The two are not the same.</p>}
        {save.isSuccess && !pin && <p className="found-free">The PIN is set.</p>}
        <ProblemNote error={save.error} />
        <Button type="submit" size="lg" disabled={save.isPending || !pin || pin !== again}>
          {me.has_pin ? 'Change the PIN' : 'Set the PIN'}
        </Button>
      </form>
    </section>
  );
}

function Digits({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (text: string) => void;
}) {
  return (
    <label className="field">
      {label}
      <input
        type="password"
        inputMode="numeric"
        autoComplete="new-password"
        maxLength={8}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}

function Everybody({ shown }: { shown: People }) {
  const clear = usePeople((username: string) =>
    unwrap(client.POST('/api/people/{username}/pin/clear', { params: { path: { username } } })),
  );
  return (
    <section aria-label="Everybody">
      <h2>Everybody here</h2>
      <p className="quiet">
        Who forgot a PIN has it cleared here, and sets another with the password. Nobody sets one for somebody
        else.
      </p>
      <ul className="lines people">
        {shown.people.map((one) => (
          <li key={one.username}>
            <span>
              <b>{one.name}</b>, {one.role}, {one.has_pin ? 'has a PIN' : 'no PIN yet'}
            </span>
            {one.has_pin && one.username !== shown.me.username && (
              <button
                type="button"
                className="take-back"
                aria-label={`Clear the PIN of ${one.name}`}
                disabled={clear.isPending}
                onClick={() => clear.mutate(one.username)}
              >
                clear it
              </button>
            )}
          </li>
        ))}
      </ul>
      <ProblemNote error={clear.error} />
      {shown.log.length > 0 && (
        <details>
          <summary>What was done with PINs</summary>
          <ul className="log">
            {shown.log.map((line) => (
              <li key={line.at + line.person}>
                <span>
                  {line.person}: {line.what}
                </span>
                <small>
                  {line.by}, {moment(line.at)}
                </small>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}
