import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { client, unwrap, type People, type Person } from '../api/client';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { moment } from '../app/time';
import { SecretField } from './SecretField';
import { usePeople } from './usePeople';

/** For a lead: everybody with role and PIN, somebody new, and what was done. */
export function Everybody({ shown }: { shown: People }) {
  const [inHand, setInHand] = useState('');
  return (
    <section aria-label="Everybody">
      <h2>Everybody here</h2>
      <ul className="lines people">
        {shown.people.map((one) => (
          <li key={one.username}>
            <span>
              <b>{one.name}</b>, {standing(one)}
            </span>
            <button
              type="button"
              className="take-back"
              aria-expanded={inHand === one.username}
              aria-label={`Change ${one.name}`}
              onClick={() => setInHand(inHand === one.username ? '' : one.username)}
            >
              {inHand === one.username ? 'leave it' : 'change'}
            </button>
            {inHand === one.username && (
              <Change one={one} isMe={one.username === shown.me.username} onDone={() => setInHand('')} />
            )}
          </li>
        ))}
      </ul>
      <AddPerson />
      {shown.log.length > 0 && (
        <details>
          <summary>What was done</summary>
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

function standing(one: Person): string {
  if (!one.works_here) return `${one.role}, works here no more`;
  const said = [
    [one.has_pin, 'has a PIN', 'no PIN yet'],
    [one.second_factor, 'second factor', ''],
    [one.signed_in, 'signed in', ''],
    [one.locked.length > 0, `locked at ${one.locked.join(' and ')}`, ''],
    [one.pin_locked, 'PIN locked', ''],
  ] as const;
  return [one.role, ...said.map(([is, yes, no]) => (is ? yes : no)).filter(Boolean)].join(', ');
}

type Role = 'technician' | 'lead';

interface ChangeOf {
  username: string;
  body: { role?: string; password?: string; works_here?: boolean };
}

/** What a lead does with one person. Records keep the name whatever is done. */
function Change({ one, isMe, onDone }: { one: Person; isMe: boolean; onDone: () => void }) {
  const [password, setPassword] = useState('');
  const change = usePeople(({ username, body }: ChangeOf) =>
    unwrap(client.POST('/api/people/{username}/change', { params: { path: { username } }, body })),
  );
  const clear = usePeople((username: string) =>
    unwrap(client.POST('/api/people/{username}/pin/clear', { params: { path: { username } } })),
  );
  const { username } = one;
  const off = change.isPending || clear.isPending;
  const send = (body: ChangeOf['body']) => change.mutate({ username, body }, { onSuccess: onDone });
  return (
    <div className="person-change">
      <LetIn one={one} isMe={isMe} onDone={onDone} />
      {one.works_here && (
        <Button
          variant="outline-primary"
          disabled={off}
          onClick={() => send({ role: one.role === 'lead' ? 'technician' : 'lead' })}
        >
          Make {one.role === 'lead' ? 'technician' : 'lead'}
        </Button>
      )}
      {one.has_pin && !isMe && (
        <Button
          variant="outline-primary"
          disabled={off}
          onClick={() => clear.mutate(username, { onSuccess: onDone })}
        >
          Clear the PIN
        </Button>
      )}
      <Button variant="outline-primary" disabled={off} onClick={() => send({ works_here: !one.works_here })}>
        {one.works_here ? 'Works here no more' : 'Works here again'}
      </Button>
      {one.works_here && !isMe && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (password) send({ password });
          }}
        >
          <SecretField label={`New password for ${one.name}`} value={password} onChange={setPassword} />
          <Button type="submit" disabled={off || !password}>
            Set the password
          </Button>
        </form>
      )}
      <ProblemNote error={change.error ?? clear.error} />
    </div>
  );
}

/** What lets somebody in again: a lock ended, a second factor taken off whose telephone is lost. */
function LetIn({ one, isMe, onDone }: { one: Person; isMe: boolean; onDone: () => void }) {
  const unlock = usePeople((username: string) =>
    unwrap(client.POST('/api/people/{username}/unlock', { params: { path: { username } } })),
  );
  const second = usePeople((username: string) =>
    unwrap(client.POST('/api/people/{username}/second/clear', { params: { path: { username } } })),
  );
  const off = unlock.isPending || second.isPending;
  return (
    <>
      {(one.locked.length > 0 || one.pin_locked) && (
        <Button disabled={off} onClick={() => unlock.mutate(one.username, { onSuccess: onDone })}>
          Unlock
        </Button>
      )}
      {one.second_factor && !isMe && (
        <Button
          variant="outline-primary"
          disabled={off}
          onClick={() => second.mutate(one.username, { onSuccess: onDone })}
        >
          Take the second factor off
        </Button>
      )}
      <ProblemNote error={unlock.error ?? second.error} />
    </>
  );
}

const NOBODY = { first_name: '', last_name: '', username: '', password: '', role: 'technician' as Role };

function AddPerson() {
  const [typed, setTyped] = useState(NOBODY);
  const add = usePeople((body: typeof NOBODY) => unwrap(client.POST('/api/people', { body })));
  const put = (name: keyof typeof NOBODY) => (text: string) => setTyped((now) => ({ ...now, [name]: text }));
  return (
    <form
      aria-label="Somebody new"
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate(typed, { onSuccess: () => setTyped(NOBODY) });
      }}
    >
      <h2 className="apart">Somebody new</h2>
      <TextField label="First name" value={typed.first_name} maxLength={60} onChange={put('first_name')} />
      <TextField label="Last name" value={typed.last_name} maxLength={60} onChange={put('last_name')} />
      <TextField
        label="Name to sign in with"
        value={typed.username}
        maxLength={150}
        onChange={put('username')}
      />
      <SecretField label="Password to begin with" value={typed.password} onChange={put('password')} />
      <label className="field">
        Role
        <select value={typed.role} onChange={(event) => put('role')(event.target.value)}>
          <option value="technician">technician</option>
          <option value="lead">lead</option>
        </select>
      </label>
      <ProblemNote error={add.error} />
      <Button type="submit" disabled={add.isPending || !typed.username || !typed.password}>
        Add
      </Button>
    </form>
  );
}
