import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import { ApiError, client, unwrap } from '../api/client';
import { meQuery, proceduresQuery, sheetsQuery } from '../api/queries';
import { FileButton } from '../app/FileButton';
import { Listed } from '../app/Listed';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { day } from '../app/time';
import { TextField } from '../app/TextField';
import { useUnit } from '../app/unit';
import { useSearch } from '../app/useSearch';
import { BeginSheet, Drafts } from './BeginSheet';
import { pumpsOf } from './pumpsOf';

const LARGEST = 512 * 1024;

/** The spec sheets of the shop, and a file to add one. */
export function Sheets() {
  const { typed, setTyped, sought } = useSearch();
  const sheets = useInfiniteQuery(sheetsQuery(sought));
  const procedures = useQuery(proceduresQuery);
  return (
    <div className="page two-columns">
      <div>
        <div className="sheet-head">
          <h1>Spec sheets</h1>
          <TextField label="Find by title, maker or model" value={typed} maxLength={80} onChange={setTyped} />
        </div>
        <Listed
          query={sheets}
          what="the sheets"
          empty="No sheet yet. Type one on the right, or add one from a file."
          sought={sought}
        >
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
                      {s.family.replace('_', ' ')}, set by {s.means}. {pumpsOf(s)}
                    </small>
                    {s.revisions > 1 && <small>{s.revisions} revisions kept.</small>}
                    {s.unread && <small className="warning">Not yet read against the manual.</small>}
                  </Link>
                </li>
              ))}
            </ul>
          )}
        </Listed>
        <Drafts />
        <h2 className="apart">Procedures</h2>
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
  });
  if (me.data?.role !== 'lead') {
    return (
      <section className="panel">
        <h2>Adding a sheet</h2>
        <p>A lead types sheets and revisions. Anybody else reads them against the manual, line by line.</p>
      </section>
    );
  }
  return (
    <div>
      <BeginSheet />
      <section className="panel">
        <h2>A sheet from a file</h2>
        <p>
          A file in the open format “fine-gap/spec-sheet”. It is checked whole; if anything is wrong, nothing
          is kept and the line is named. It is read against the manual like one that is typed.
        </p>
        <ProblemNote error={add.error} />
        <FileButton
          size="lg"
          label="Sheet file"
          accept=".json,application/json"
          off={add.isPending}
          onFile={(chosen) => add.mutate(chosen)}
        >
          Choose a file
        </FileButton>
      </section>
    </div>
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
