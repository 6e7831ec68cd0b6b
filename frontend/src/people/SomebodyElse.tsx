import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button, Modal } from 'react-bootstrap';
import { client, csrfToken, unwrap } from '../api/client';
import { somebodyQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { CodeField } from './CodeField';
import { SecretField } from './SecretField';

/** At a shared tablet: somebody else goes on here, by name and PIN. */
export function SomebodyElse() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="strip-button" onClick={() => setOpen(true)}>
        Change person
      </button>
      <Modal show={open} onHide={() => setOpen(false)} centered aria-labelledby="somebody-title">
        <Modal.Header closeButton>
          <Modal.Title id="somebody-title">Who goes on here?</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <Names />
        </Modal.Body>
        <Modal.Footer>
          <form method="post" action="/sign-out">
            <input type="hidden" name="csrfmiddlewaretoken" value={csrfToken()} />
            <Button type="submit" variant="outline-primary">
              Nobody: sign out
            </Button>
          </form>
        </Modal.Footer>
      </Modal>
    </>
  );
}

interface SecretsProps {
  by: string;
  secret: string;
  onSecret: (text: string) => void;
  code: string;
  onCode: (text: string) => void;
}

/** What says who it is: a PIN, or a password, and a code where a second factor is set up. */
function Secrets({ by, secret, onSecret, code, onCode }: SecretsProps) {
  const digits = by.startsWith('PIN');
  return (
    <>
      <SecretField
        label={digits ? 'PIN' : 'Password'}
        digits={digits}
        offer="off"
        value={secret}
        onChange={onSecret}
      />
      {by.includes('code') && <CodeField label="Code of the second factor" value={code} onChange={onCode} />}
    </>
  );
}

/** With what somebody says who it is. */
const by = (people: { username: string; by: string }[], chosen: string): string =>
  people.find((one) => one.username === chosen)?.by ?? '';

function Names() {
  const somebody = useQuery(somebodyQuery);
  const [chosen, setChosen] = useState('');
  const [secret, setSecret] = useState('');
  const [code, setCode] = useState('');
  const go = useMutation({
    retry: false,
    mutationFn: (body: { username: string; secret: string; code: string }) =>
      unwrap(client.POST('/api/people/switch', { body })),
    // Everything on the page goes by who it was loaded for: it begins anew.
    onSuccess: () => window.location.reload(),
  });
  return (
    <Loaded query={somebody} what="the people">
      {(people) => (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (chosen && secret && !go.isPending) go.mutate({ username: chosen, secret, code });
          }}
        >
          {people.length === 0 && <p>Nobody else works here yet.</p>}
          <div className="pick-list" role="radiogroup" aria-label="Who">
            {people.map((one) => (
              <label key={one.username}>
                <input
                  type="radio"
                  name="somebody"
                  checked={chosen === one.username}
                  onChange={() => {
                    setChosen(one.username);
                    setSecret('');
                    setCode('');
                    go.reset();
                  }}
                />
                <span>{one.name}</span>
              </label>
            ))}
          </div>
          {chosen && (
            <Secrets
              by={by(people, chosen)}
              key={chosen}
              secret={secret}
              onSecret={setSecret}
              code={code}
              onCode={setCode}
            />
          )}
          <ProblemNote error={go.error} />
          {people.length > 0 && (
            <Button type="submit" size="lg" disabled={!chosen || !secret || go.isPending}>
              Go on here
            </Button>
          )}
        </form>
      )}
    </Loaded>
  );
}
