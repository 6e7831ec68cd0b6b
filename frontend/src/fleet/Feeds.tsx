import { useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { client, newId } from '../api/client';
import { linksQuery } from '../api/fleetQueries';
import { Listed } from '../app/Listed';
import { MadeAddress, LinkTable } from '../app/SharedLinks';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { useTyped } from '../app/useTyped';
import type { Entered } from '../app/works';

/** What falls due in a calendar program: it fetches it by a secret address, which can be taken back. */
export function Feeds() {
  const [open, setOpen] = useState(false);
  return (
    <section className="apart" aria-label="In a calendar">
      <h2>In a calendar</h2>
      <p>
        A calendar program fetches this by a secret address: whoever has it sees what falls due, and nothing
        else. It is shown once; take it back when a tablet is lost.
      </p>
      {open ? (
        <Inside onHide={() => setOpen(false)} />
      ) : (
        <Button variant="outline-primary" onClick={() => setOpen(true)}>
          Calendar addresses
        </Button>
      )}
    </section>
  );
}

function Inside({ onHide }: { onHide: () => void }) {
  const links = useInfiniteQuery(linksQuery({ to: 'calendar' }));
  const cache = useQueryClient();
  const [texts, setTexts] = useState({ whom: '', pump: '', place: '' });
  const identity = useRef(newId());
  const make = useTyped(
    (body: { id: string; whom: string; pump: string; place: string } & Entered) =>
      client.POST('/api/links', { body }),
    () => {
      identity.current = newId();
      return cache.invalidateQueries({ queryKey: ['links'] });
    },
  );
  const put = (name: keyof typeof texts) => (text: string) => setTexts({ ...texts, [name]: text });
  return (
    <>
      <form
        className="panel"
        aria-label="A new calendar address"
        onSubmit={(event) => {
          event.preventDefault();
          if (!make.isPending) make.mutate({ id: identity.current, ...texts });
        }}
      >
        <div className="asks">
          <TextField
            label="For whom, or which tablet"
            value={texts.whom}
            maxLength={120}
            onChange={put('whom')}
          />
          <TextField
            label="Of one pump only, by its tag"
            value={texts.pump}
            maxLength={30}
            onChange={put('pump')}
          />
          <TextField label="Of one place only" value={texts.place} maxLength={120} onChange={put('place')} />
        </div>
        <ProblemNote error={make.error} />
        {make.data && <MadeAddress address={make.data.address} />}
        <Button type="submit" disabled={make.isPending}>
          Make an address
        </Button>{' '}
        <Button variant="outline-secondary" onClick={onHide}>
          Close
        </Button>
      </form>
      <Listed query={links} what="the addresses" empty="No calendar address was made yet.">
        {(lines) => <LinkTable lines={lines} />}
      </Listed>
    </>
  );
}
