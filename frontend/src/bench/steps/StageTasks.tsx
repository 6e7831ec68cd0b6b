import { useEffect, useRef, useState, type ReactNode } from 'react';
import type { Job } from '../../api/client';
import { useKeys } from '../../app/keys';
import { Steps } from './Steps';

/** What one step is done with. */
export interface Page {
  key: string;
  name: string;
}

interface Props<P extends Page> {
  job: Job;
  stage: string;
  pages: P[];
  /** What stands over the page on every step. */
  above?: ReactNode;
  show: (page: P) => ReactNode;
}

/** The steps of a stage on the left, what the one in hand is done with on the right. */
export function StageTasks<P extends Page>({ job, stage, pages, above, show }: Props<P>) {
  const present = job.steps.find((s) => s.stage === stage && s.by === null)?.key ?? '';
  const [chosen, setChosen] = useState({ page: '', at: present });
  // Another page can be looked at; when the steps go on, the page goes with them.
  const wanted = chosen.page && chosen.at === present ? chosen.page : present || pages[0]?.key;
  const index = pages.findIndex((p) => p.key === wanted);
  const page = pages[index];
  const move = (by: number) => {
    const from = index >= 0 ? index : by > 0 ? -1 : 0;
    const next = pages[(from + by + pages.length) % pages.length];
    if (next) setChosen({ page: next.key, at: present });
  };
  const shown = useRef(page?.key);
  useEffect(() => {
    // Another page begins at its top.
    if (shown.current !== page?.key) document.querySelector('main')?.scrollTo({ top: 0 });
    shown.current = page?.key;
  }, [page?.key]);
  useKeys([
    { key: 'ArrowUp', label: '', run: () => move(-1) },
    { key: 'ArrowDown', show: '↑ ↓', label: 'work', run: () => move(1) },
  ]);
  return (
    <div className="stage build-columns">
      <Steps job={job} stage={stage} />
      <section aria-label="Work in hand">
        {above}
        <Picker
          pages={pages}
          page={page}
          present={present}
          onPick={(key) => setChosen({ page: key, at: present })}
          onMove={move}
        />
        {page ? (
          <div className="works" key={page.key}>
            {show(page)}
          </div>
        ) : (
          <p className="quiet">
            This step needs nothing but its words. The arrows show the work of the others.
          </p>
        )}
      </section>
    </div>
  );
}

interface PickerProps {
  pages: Page[];
  page: Page | undefined;
  present: string;
  onPick: (key: string) => void;
  onMove: (by: number) => void;
}

/** Which step's work is looked at. */
function Picker({ pages, page, present, onPick, onMove }: PickerProps) {
  return (
    <div className="page-picker">
      <button type="button" className="tool" aria-label="Work before" onClick={() => onMove(-1)}>
        ◂
      </button>
      <select
        aria-label="Work in hand"
        value={page?.key ?? ''}
        onChange={(event) => onPick(event.target.value)}
      >
        {!page && <option value="">Nothing to calculate or to log at this step</option>}
        {pages.map((p) => (
          <option key={p.key} value={p.key}>
            {p.name}
            {p.key === present ? ' (this step)' : ''}
          </option>
        ))}
      </select>
      <button type="button" className="tool" aria-label="Next work" onClick={() => onMove(1)}>
        ▸
      </button>
    </div>
  );
}

/** What a step's page is called: the step's words up to the first stop. */
// eslint-disable-next-line react-refresh/only-export-components -- a name belongs beside the page it names
export function pageName(text: string): string {
  return text.split(/[;:,.]/, 1)[0] ?? text;
}
