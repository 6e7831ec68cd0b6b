import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { client, newId, type Job } from '../../api/client';
import { linksQuery } from '../../api/fleetQueries';
import { meQuery } from '../../api/queries';
import { DayField } from '../../app/DayField';
import { Listed } from '../../app/Listed';
import { ProblemNote } from '../../app/ProblemNote';
import { LinkTable, MadeAddress } from '../../app/SharedLinks';
import { TextField } from '../../app/TextField';
import { useTyped } from '../../app/useTyped';
import type { Entered } from '../../app/works';

/** A signed report by a link: for somebody without an account, up to a day, taken back whenever a lead wants. */
export function ShareReport({ job }: { job: Job }) {
  const me = useQuery(meQuery);
  const [open, setOpen] = useState(false);
  if (!job.signed) return null;
  return (
    <section aria-label="By a link" className="share">
      {open ? (
        <Inside number={job.number} lead={me.data?.role === 'lead'} />
      ) : (
        <Button variant="outline-primary" onClick={() => setOpen(true)}>
          Give the report out by a link
        </Button>
      )}
    </section>
  );
}

function Inside({ number, lead }: { number: number; lead: boolean }) {
  const cache = useQueryClient();
  const links = useInfiniteQuery(linksQuery({ to: 'report', job: number }));
  const [whom, setWhom] = useState('');
  const [until, setUntil] = useState('');
  const identity = useRef(newId());
  const make = useTyped(
    (body: { id: string; whom: string; until: string } & Entered) =>
      client.POST('/api/jobs/{number}/links', { params: { path: { number } }, body }),
    () => {
      identity.current = newId();
      return cache.invalidateQueries({ queryKey: ['links'] });
    },
  );
  return (
    <>
      <h2>By a link</h2>
      <p className="quiet">
        A page in plain words and the report, to read only, without an account. No page of a manual goes out.
      </p>
      {lead ? (
        <form
          className="panel"
          onSubmit={(event) => {
            event.preventDefault();
            if (!make.isPending) make.mutate({ id: identity.current, whom, until });
          }}
        >
          <TextField label="For whom" value={whom} maxLength={120} onChange={setWhom} />
          <DayField label="Can be opened until" value={until} onChange={setUntil} />
          <ProblemNote error={make.error} />
          {make.data && <MadeAddress address={make.data.address} />}
          <Button type="submit" disabled={make.isPending}>
            Make the link
          </Button>
        </form>
      ) : (
        <p className="quiet">A lead makes links.</p>
      )}
      <Listed query={links} what="the links" empty="No link to this report was made.">
        {(lines) => <LinkTable lines={lines} />}
      </Listed>
    </>
  );
}
