import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { client, unwrap, type Person } from '../api/client';
import { peopleQuery } from '../api/queries';
import { ProblemNote } from '../app/ProblemNote';
import { CodeField } from './CodeField';
import { SecretField } from './SecretField';
import { usePeople } from './usePeople';

/** A second factor of a lead: set up with a telephone, or taken off. */
export function SecondFactor({ me }: { me: Person }) {
  // Codes are shown once: they stay on this page until it is left, whatever the list of people says meanwhile.
  const [codes, setCodes] = useState<string[]>([]);
  return (
    <section aria-label="Second factor" className="apart">
      <h2>Second factor</h2>
      {codes.length > 0 && <OnPaper codes={codes} />}
      {me.second_factor ? <TakeOff /> : <SetUp onCodes={setCodes} />}
    </section>
  );
}

function OnPaper({ codes }: { codes: string[] }) {
  return (
    <div className="panel" role="status">
      <p>
        <b>It is set up. Write these down now: they are not shown again.</b> Each signs you in once, when the
        telephone is lost.
      </p>
      <ul className="paper-codes">
        {codes.map((code) => (
          <li key={code}>
            <code>{code}</code>
          </li>
        ))}
      </ul>
    </div>
  );
}

function SetUp({ onCodes }: { onCodes: (codes: string[]) => void }) {
  const [password, setPassword] = useState('');
  const begin = useMutation({
    retry: false,
    mutationFn: () => unwrap(client.POST('/api/people/second', { body: { password } })),
    onSuccess: () => setPassword(''),
  });
  return (
    <>
      <p>
        A code from your telephone, asked for beside the password whenever you sign in. Any app for one-time
        codes will do; it needs no network.
      </p>
      {begin.data ? (
        <FirstCode begun={begin.data} onCodes={onCodes} />
      ) : (
        <form
          aria-label="Set up a second factor"
          onSubmit={(event) => {
            event.preventDefault();
            if (password && !begin.isPending) begin.mutate();
          }}
        >
          <SecretField
            label="Your password, to set it up"
            offer="current-password"
            value={password}
            onChange={setPassword}
          />
          <ProblemNote error={begin.error} />
          <Button type="submit" variant="outline-primary" disabled={begin.isPending || !password}>
            Set it up
          </Button>
        </form>
      )}
    </>
  );
}

interface FirstCodeProps {
  begun: { picture: string; key: string };
  onCodes: (codes: string[]) => void;
}

function FirstCode({ begun, onCodes }: FirstCodeProps) {
  const [code, setCode] = useState('');
  const cache = useQueryClient();
  const confirm = useMutation({
    retry: false,
    mutationFn: () => unwrap(client.POST('/api/people/second/code', { body: { code } })),
    onSuccess: ({ codes }) => {
      onCodes(codes);
      void cache.invalidateQueries({ queryKey: peopleQuery.queryKey });
    },
  });
  return (
    <form
      aria-label="The first code"
      onSubmit={(event) => {
        event.preventDefault();
        if (code.trim() && !confirm.isPending) confirm.mutate();
      }}
    >
      <p>Scan this with the app on your telephone, and type the code it shows.</p>
      <img
        className="second-picture"
        alt="A picture to scan; the key below says the same"
        src={`data:image/svg+xml,${encodeURIComponent(begun.picture)}`}
      />
      <p className="quiet">
        Or type the key: <code>{begun.key.match(/.{1,4}/g)?.join(' ')}</code>
      </p>
      <CodeField label="The code it shows" value={code} onChange={setCode} />
      <ProblemNote error={confirm.error} />
      <Button type="submit" disabled={confirm.isPending || !code.trim()}>
        Ask for it from now on
      </Button>
    </form>
  );
}

function TakeOff() {
  const [password, setPassword] = useState('');
  const [code, setCode] = useState('');
  const off = usePeople((body: { password: string; code: string }) =>
    unwrap(client.POST('/api/people/second/off', { body })),
  );
  return (
    <details open={off.isError || undefined}>
      <summary>A code is asked for when you sign in. Take it off</summary>
      <form
        aria-label="Take the second factor off"
        onSubmit={(event) => {
          event.preventDefault();
          if (password && code && !off.isPending) off.mutate({ password, code });
        }}
      >
        <SecretField
          label="Your password, to take it off"
          offer="current-password"
          value={password}
          onChange={setPassword}
        />
        <CodeField label="Code, from the telephone or on paper" value={code} onChange={setCode} />
        <ProblemNote error={off.error} />
        <Button type="submit" variant="outline-primary" disabled={off.isPending || !password || !code}>
          Take it off
        </Button>
      </form>
    </details>
  );
}
