import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { client, unwrap, type Person } from '../api/client';
import { peopleQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { Everybody } from './Everybody';
import { SecondFactor } from './SecondFactor';
import { SecretField } from './SecretField';
import { usePeople } from './usePeople';

/** One's own PIN and password; and for a lead everybody. */
export function MePage() {
  const people = useQuery(peopleQuery);
  return (
    <div className="page">
      <Loaded query={people} what="the people">
        {(shown) => (
          <div className="two-columns">
            <div>
              <OwnPin me={shown.me} />
              <OwnPassword />
              {(shown.me.role === 'lead' || shown.me.second_factor) && <SecondFactor me={shown.me} />}
            </div>
            {shown.people.length > 0 && <Everybody shown={shown} />}
          </div>
        )}
      </Loaded>
    </div>
  );
}

function OwnPin({ me }: { me: Person }) {
  const [password, setPassword] = useState('');
  const [pin, setPin] = useState('');
  const [again, setAgain] = useState('');
  const save = usePeople((body: { password: string; pin: string }) =>
    unwrap(client.POST('/api/people/pin', { body })),
  );
  const empty = () => [setPassword, setPin, setAgain].forEach((set) => set(''));
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
          if (pin && pin === again) save.mutate({ password, pin }, { onSuccess: empty });
        }}
      >
        <SecretField label="Your password" offer="current-password" value={password} onChange={setPassword} />
        <SecretField label="New PIN, 4 to 8 digits" digits value={pin} onChange={setPin} />
        <SecretField label="The same again" digits value={again} onChange={setAgain} />
        {again !== '' && pin !== again && <p className="warning">The two are not the same.</p>}
        {save.isSuccess && !pin && <p className="found-free">The PIN is set.</p>}
        <ProblemNote error={save.error} />
        <Button type="submit" size="lg" disabled={save.isPending || !pin || pin !== again}>
          {me.has_pin ? 'Change the PIN' : 'Set the PIN'}
        </Button>
      </form>
    </section>
  );
}

function OwnPassword() {
  const [old, setOld] = useState('');
  const [fresh, setFresh] = useState('');
  const [again, setAgain] = useState('');
  const save = usePeople((body: { old: string; new: string }) =>
    unwrap(client.POST('/api/people/password', { body })),
  );
  const empty = () => [setOld, setFresh, setAgain].forEach((set) => set(''));
  return (
    <details className="apart" open={save.isError || undefined}>
      <summary>Change your password</summary>
      <form
        aria-label="Your password"
        onSubmit={(event) => {
          event.preventDefault();
          if (fresh && fresh === again) save.mutate({ old, new: fresh }, { onSuccess: empty });
        }}
      >
        <SecretField label="The old password" offer="current-password" value={old} onChange={setOld} />
        <SecretField label="The new password" value={fresh} onChange={setFresh} />
        <SecretField label="The new one again" value={again} onChange={setAgain} />
        {again !== '' && fresh !== again && <p className="warning">The two are not the same.</p>}
        {save.isSuccess && !fresh && (
          <p className="found-free">The password is changed. You are signed out everywhere else.</p>
        )}
        <ProblemNote error={save.error} />
        <Button type="submit" disabled={save.isPending || !fresh || fresh !== again}>
          Change the password
        </Button>
      </form>
    </details>
  );
}
