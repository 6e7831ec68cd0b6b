import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { useNavigate, useParams } from 'react-router';
import { ApiError, client, unwrap, type AskedSection, type DraftPage } from '../../api/client';
import { draftQuery } from '../../api/queries';
import { useKeys } from '../../app/keys';
import { Loaded } from '../../app/Loading';
import { ProblemNote } from '../../app/ProblemNote';
import { AskField } from './AskField';
import { Beside } from './Beside';
import { SheetGrid } from './SheetGrid';
import { useDraft, type Draft } from './useDraft';
import '../../styles/typing.css';

/** A sheet typed from the printed manual. */
export function TypeSheet() {
  const { id = '' } = useParams();
  const page = useQuery(draftQuery(Number(id)));
  return (
    <div className="page">
      <Loaded query={page} what="what is typed">
        {(data) => <Typing page={data} />}
      </Loaded>
    </div>
  );
}

const PURPOSES: Record<string, string> = {
  size: 'Copied for the next size: overtype what differs.',
  revision: 'A later revision of the manual.',
  correction: 'A correction of what was read.',
  unread: 'Put right before it is read.',
};

function Typing({ page }: { page: DraftPage }) {
  const cache = useQueryClient();
  const draft = useDraft(page, () => void cache.invalidateQueries({ queryKey: ['draft', page.state.id] }));
  const [chosen, setChosen] = useState('manual');
  const [begun, setBegun] = useState(false);
  const goTo = (key: string) => {
    setBegun(true);
    setChosen(key);
  };
  const sections = page.sections;
  const index = Math.max(
    0,
    sections.findIndex((one) => one.key === chosen),
  );
  const [section, next] = [sections[index], sections[index + 1]];
  useKeys([{ key: 'n', label: next ? `next: ${next.title}` : '', run: () => next && goTo(next.key) }]);
  return (
    <>
      <Head page={page} draft={draft} />
      <div className="typing">
        <Contents sections={sections} draft={draft} chosen={section?.key ?? ''} onChoose={goTo} />
        {section && (
          <form
            key={section.key}
            className="typing-section"
            aria-label={section.title}
            onSubmit={(event) => event.preventDefault()}
          >
            <Fields section={section} draft={draft} begun={begun} />
            {index === 0 && page.kept.length > 0 && (
              <p className="quiet">Kept from the file as it is: {page.kept.join(', ')}.</p>
            )}
            {next && (
              <Button variant="outline-primary" onClick={() => goTo(next.key)}>
                Next: {next.title}
              </Button>
            )}
          </form>
        )}
        <Beside page={page} draft={draft} section={section?.key ?? ''} onSize={() => goTo('features')} />
      </div>
    </>
  );
}

function Fields({ section, draft, begun }: { section: AskedSection; draft: Draft; begun: boolean }) {
  // Another section takes the keyboard to its head: what follows is its first field.
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    if (begun) head.current?.focus();
  }, [begun]);
  return (
    <>
      <h2 ref={head} tabIndex={-1}>
        {section.title}
      </h2>
      {section.hint && <p className="said">{section.hint}</p>}
      <div className="asks">
        {section.asks.map((ask) => (
          <AskField key={ask.path} ask={ask} draft={draft} />
        ))}
      </div>
      {section.grids.map((grid) => (
        <section key={grid.path} aria-label={grid.label}>
          {grid.label !== section.title && <h3>{grid.label}</h3>}
          <SheetGrid grid={grid} draft={draft} />
        </section>
      ))}
    </>
  );
}

interface ContentsProps {
  sections: AskedSection[];
  draft: Draft;
  chosen: string;
  onChoose: (key: string) => void;
}

/** The sections, with what is wrong in each and what is still needed. */
function Contents({ sections, draft, chosen, onChoose }: ContentsProps) {
  return (
    <nav aria-label="Sections of the sheet" className="typing-contents">
      {sections.map((section) => {
        const of = draft.state.problems.filter((one) => belongs(one.path, section));
        const wrong = of.filter((one) => !one.missing).length;
        return (
          <button
            key={section.key}
            type="button"
            aria-current={section.key === chosen ? 'step' : undefined}
            onClick={() => onChoose(section.key)}
          >
            {section.title}
            <small className={wrong ? 'wrong' : undefined}>
              {wrong ? `${wrong} wrong` : of.length ? `${of.length} to fill in` : filled(section, draft)}
            </small>
          </button>
        );
      })}
    </nav>
  );
}

const top = (path: string): string => /^[^.[]+/.exec(path)?.[0] ?? '';
const belongs = (path: string, section: AskedSection): boolean =>
  top(path) === section.key || section.asks.some((ask) => ask.path === path);

function filled(section: AskedSection, { typed }: Draft): string {
  const some =
    section.asks.some((ask) => typed.fields[ask.path]) ||
    section.grids.some(
      (grid) =>
        (typed.grids[grid.path] ?? []).length > 0 ||
        Object.keys(typed.fields).some((path) => path.startsWith(`${grid.path}.`) && typed.fields[path]),
    );
  return some ? 'typed' : 'not said';
}

function Head({ page, draft }: { page: DraftPage; draft: Draft }) {
  const navigate = useNavigate();
  const cache = useQueryClient();
  const { id, problems, sizes } = draft.state;
  const keep = useMutation({
    retry: false,
    mutationFn: async () => {
      const body = { version: await draft.saved() };
      return unwrap(client.POST('/api/sheet-drafts/{id}/keep', { params: { path: { id } }, body }));
    },
    onSuccess: (kept) => {
      for (const key of ['sheets', 'sheet', 'drafts', 'reading', 'jobs', 'job'])
        void cache.invalidateQueries({ queryKey: [key] });
      void navigate(`/sheets/${kept.slug}/${encodeURIComponent(kept.revision)}`);
    },
  });
  return (
    <>
      <header className="sheet-head">
        <div>
          <h1>{draft.state.title || 'A new sheet'}</h1>
          <p>
            {page.family}, typed in {page.system === 'in' ? 'inches' : 'millimetres'}.{' '}
            {PURPOSES[page.purpose] ?? ''} <span role="status">{savedOf(draft)}</span>
          </p>
        </div>
        <p className="quiet">{openOf(problems)}</p>
        <Button
          disabled={problems.length > 0 || sizes.length > 0 || keep.isPending}
          onClick={() => keep.mutate()}
        >
          Keep the sheet
        </Button>
      </header>
      {sizes.length > 0 && <OtherSizes draft={draft} />}
      <Trouble error={draft.error ?? keep.error} draft={draft} onJoined={keep.reset} />
    </>
  );
}

interface TroubleProps {
  error: Error | null;
  draft: Draft;
  onJoined: () => void;
}

/** Why it is not saved or kept; where somebody else typed in it meanwhile, what to do with both. */
function Trouble({ error, draft, onJoined }: TroubleProps) {
  if (!(error instanceof ApiError) || error.details.code !== 'conflict') return <ProblemNote error={error} />;
  return (
    <div className="problem" role="alert">
      <strong>Somebody else typed in this sheet meanwhile.</strong>
      <p>What you typed since the last save stands here and is not saved.</p>
      <div className="choices">
        <Button variant="outline-primary" onClick={() => void draft.join().then(onJoined)}>
          Show theirs, with mine where both typed
        </Button>
        <Button variant="outline-secondary" onClick={() => window.location.reload()}>
          Show theirs, drop mine
        </Button>
      </div>
    </div>
  );
}

function openOf(problems: Draft['state']['problems']): string {
  const wrong = problems.filter((one) => !one.missing).length;
  const missing = problems.length - wrong;
  const said = [wrong > 0 && `${wrong} wrong.`, missing > 0 && `${missing} to fill in.`].filter(Boolean);
  return said.length > 0 ? said.join(' ') : 'Everything that has to be there is.';
}

/** A table of several sizes: each gets a sheet. */
function OtherSizes({ draft }: { draft: Draft }) {
  const { id, sizes } = draft.state;
  const apart = useMutation({
    retry: false,
    mutationFn: async () => {
      const body = { version: await draft.saved() };
      return unwrap(client.POST('/api/sheet-drafts/{id}/sizes', { params: { path: { id } }, body }));
    },
    // The rows of other sizes are gone from this draft: all of it is read anew.
    onSuccess: () => window.location.reload(),
  });
  return (
    <div className="panel">
      <p>
        Its tables have rows for other sizes: {sizes.join(', ')}. Each gets a sheet of its own; the sizes of
        its parts are typed there.
      </p>
      <Button disabled={apart.isPending} onClick={() => apart.mutate()}>
        Make a sheet of each
      </Button>
      <ProblemNote error={apart.error} />
    </div>
  );
}

function savedOf({ waiting, error }: Draft): string {
  if (error) return 'Not saved yet.';
  return waiting ? 'Saving …' : 'Saved.';
}
