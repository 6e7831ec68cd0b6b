import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { Button } from 'react-bootstrap';
import { Link, useNavigate } from 'react-router';
import { ApiError, client, unwrap } from '../api/client';
import { meQuery, proceduresQuery, sheetsQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { day } from '../app/time';
import { useUnit } from '../app/unit';

const LARGEST = 512 * 1024;

/** The spec sheets of the shop, and a file to add one. */
export function Sheets() {
  const sheets = useQuery(sheetsQuery);
  const procedures = useQuery(proceduresQuery);
  return (
    <div className="page two-columns">
      <div>
        <h1>Spec sheets</h1>
        <Loaded query={sheets} what="the sheets" empty="No sheet yet. Add one from a file on the right.">
          {(lines) => (
            <ul className="lines">
              {lines.map((s) => (
                <li key={s.slug}>
                  <Link to={`/sheets/${s.slug}/latest`}>
                    <b>{s.title}</b>{' '}
                    <span>
                      revision {s.revision}, {day(s.date)}
                    </span>
                    <small>
                      {s.family.replace('_', ' ')}, set by {s.means}.{' '}
                      {s.pumps.length ? `Pumps: ${s.pumps.join(', ')}.` : 'No pump uses it.'}
                    </small>
                    {s.revisions.length > 1 && <small>{s.revisions.length} revisions kept.</small>}
                  </Link>
                </li>
              ))}
            </ul>
          )}
        </Loaded>
        <h2 className="mt-5">Procedures</h2>
        <Loaded query={procedures} what="the procedures">
          {(lines) => (
            <ul className="lines">
              {lines.map((p) => (
                <li key={p.family}>
                  <Link to={`/sheets/procedures/${p.family}`}>
                    <b>{p.name}</b>{' '}
                    <span>{p.version ? `the shop's version ${p.version}` : 'as Fine Gap lists it'}</span>
                    <small>Steps of Prepare, Strip, Build and Prove, to be worded as this shop works.</small>
                  </Link>
                </li>
              ))}
            </ul>
          )}
        </Loaded>
      </div>
      <AddSheet />
    </div>
  );
}

function AddSheet() {
  const me = useQuery(meQuery);
  const { unit } = useUnit();
  const file = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const cache = useQueryClient();
  const add = useMutation({
    mutationFn: async (chosen: File) => {
      if (chosen.size > LARGEST) throw tooLarge();
      return unwrap(
        client.POST('/api/sheets', { params: { query: { unit } }, body: { text: await chosen.text() } }),
      );
    },
    retry: false,
    onSuccess: (sheet) => {
      void cache.invalidateQueries({ queryKey: ['sheets'] });
      void navigate(`/sheets/${sheet.slug}/${sheet.revision}`);
    },
    onSettled: () => {
      if (file.current) file.current.value = '';
    },
  });
  if (me.data?.role !== 'lead') {
    return (
      <section className="panel">
        <h2>Adding a sheet</h2>
        <p>A lead adds sheets and revisions: the numbers pumps are set by need a second look.</p>
      </section>
    );
  }
  return (
    <section className="panel">
      <h2>Add a sheet or a revision</h2>
      <p>
        A file in the open format “fine-gap/spec-sheet”. It is checked whole; if anything is wrong, nothing is
        kept and the line is named.
      </p>
      <input
        ref={file}
        type="file"
        accept=".json,application/json"
        className="visually-hidden"
        aria-label="Sheet file"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) add.mutate(chosen);
        }}
      />
      <ProblemNote error={add.error} />
      <Button size="lg" disabled={add.isPending} onClick={() => file.current?.click()}>
        Choose a file
      </Button>
    </section>
  );
}

function tooLarge(): ApiError {
  return new ApiError({
    code: 'field',
    field: 'file',
    problem: 'it is too large for a spec sheet.',
    hint: `Expected up to ${LARGEST / 1024} kB.`,
    suggestions: [],
    reasons: [],
    reason_wanted: false,
  });
}
