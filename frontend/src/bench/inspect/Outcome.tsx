import { useState } from 'react';
import type { Feature, Job, Judged, Result } from '../../api/client';
import { useKeys } from '../../app/keys';
import { WorkingDialog, WorkingLink } from '../../app/WorkingLink';
import { WearBar } from '../../drawing/GapBar';
import { VerdictMark, verdictClass } from '../../drawing/VerdictMark';
import { WearPanel } from './WearPanel';

const WORD: Record<string, string> = {
  external: 'smallest',
  internal: 'largest',
  pair: 'clearance',
  gap: 'measured',
  runout: 'runout',
  flatness: 'widest gap',
};

/** What the readings come to: the deciding size with its uncertainty, the wear bar, the verdict and its sentences. */
export function Outcome({ job, feature, phase }: { job: Job; feature: Feature; phase: 'found' | 'left' }) {
  const found = phase === 'found';
  const result = found ? feature.found : feature.left;
  const judged = found ? feature.judged : feature.judged_left;
  const notes = result?.notes.filter((note) => !judged?.reasons.includes(note)) ?? [];
  return (
    <div className="outcome">
      {result && <Figures feature={feature} result={result} />}
      {!result && feature.kind !== 'check' && <p className="figures quiet">No result yet.</p>}
      {!found && <TowardsLimit feature={feature} result={result} />}
      {judged && <Call judged={judged} />}
      {found && <Ahead job={job} feature={feature} />}
      {notes.map((note) => (
        <p className="quiet" key={note}>
          {note}
        </p>
      ))}
    </div>
  );
}

/** How it will wear, or why that cannot be told. */
function Ahead({ job, feature }: { job: Job; feature: Feature }) {
  return (
    <>
      {feature.forecast && <Coming job={job} feature={feature} />}
      {feature.missing && <p className="quiet">{feature.missing}</p>}
    </>
  );
}

function Figures({ feature, result }: { feature: Feature; result: Result }) {
  return (
    <p className="figures">
      {WORD[feature.kind]} <b>{result.text}</b> ± {result.expanded_text}
      {result.out_of_round !== null && (
        <>
          {' '}
          · out of round <b>{result.out_of_round}</b>
        </>
      )}
      {result.taper !== null && (
        <>
          {' '}
          · taper <b>{result.taper}</b>
        </>
      )}{' '}
      <WorkingLink working={result.working} />
    </p>
  );
}

interface LimitProps {
  feature: Feature;
  result: Result | null;
}

/** How far the part is towards its limit. One that may be neither smaller nor larger does not wear towards any. */
function TowardsLimit({ feature, result }: LimitProps) {
  const limit = feature.upper_mm ?? feature.lower_mm;
  const window = feature.upper_mm !== null && feature.lower_mm !== null;
  if (limit === null || window) return null;
  return (
    <WearBar
      newMm={feature.new_mm}
      limitMm={limit}
      limitText={`limit ${feature.limit_text.replace(/^at (least|most) /, '')}`}
      valueMm={result?.value_mm ?? null}
      expandedMm={result?.expanded_mm ?? 0}
    />
  );
}

function Call({ judged }: { judged: Judged }) {
  const [open, setOpen] = useState(false);
  const { working } = judged;
  useKeys(working ? [{ key: 'w', label: 'working', run: () => setOpen(true) }] : []);
  return (
    <div className="judgement" aria-live="polite">
      <VerdictMark verdict={judged.verdict} />
      <div>
        <p className={`verdict ${verdictClass(judged.verdict)}`}>{judged.verdict}</p>
        <p>
          {judged.sentence} {judged.reasons.join(' ')} {working && <WorkingLink working={working} />}
        </p>
      </div>
      {working && <WorkingDialog working={working} show={open} onHide={() => setOpen(false)} />}
    </div>
  );
}

/** How it wears, in a line, and its chart. */
function Coming({ job, feature }: { job: Job; feature: Feature }) {
  const [open, setOpen] = useState(false);
  useKeys([{ key: 'h', label: 'wear chart', run: () => setOpen(true) }]);
  const said = feature.judged?.reasons.some((r) => r.includes(feature.forecast?.sentence ?? '\0'));
  return (
    <p className="quiet coming">
      {said ? feature.forecast?.date : `${feature.forecast?.sentence ?? ''} ${feature.forecast?.date ?? ''}`}{' '}
      <button type="button" className="working-link" onClick={() => setOpen(true)}>
        wear chart
      </button>
      {feature.odd.map((odd) => (
        <span className="warning" key={odd}>
          {' '}
          {odd}
        </span>
      ))}
      {open && <WearPanel job={job} feature={feature} onHide={() => setOpen(false)} />}
    </p>
  );
}
