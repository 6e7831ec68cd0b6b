import { useState } from 'react';
import type { Feature, Result } from '../api/client';
import { useKeys } from '../app/keys';
import { WorkingDialog, WorkingLink } from '../app/WorkingLink';
import { WearBar } from '../drawing/GapBar';
import { VerdictMark, verdictClass } from '../drawing/VerdictMark';

const WORD: Record<string, string> = {
  external: 'smallest',
  internal: 'largest',
  pair: 'clearance',
  gap: 'measured',
};

/** What the readings come to: the deciding size with its uncertainty, the wear bar, the verdict and its sentence. */
export function Outcome({ feature, result }: { feature: Feature; result: Result | null }) {
  const limit = feature.upper_mm ?? feature.lower_mm;
  return (
    <div className="outcome">
      {result ? (
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
      ) : (
        <p className="figures quiet">No result yet.</p>
      )}
      {limit !== null && (
        <WearBar
          newMm={feature.new_mm}
          limitMm={limit}
          limitText={`limit ${feature.limit_text.replace(/^at (least|most) /, '')}`}
          valueMm={result?.value_mm ?? null}
          expandedMm={result?.expanded_mm ?? 0}
        />
      )}
      {result && <ResultVerdict result={result} />}
      {result?.notes.map((note) => (
        <p className="quiet" key={note}>
          {note}
        </p>
      ))}
    </div>
  );
}

function ResultVerdict({ result }: { result: Result }) {
  const [open, setOpen] = useState(false);
  useKeys([{ key: 'w', label: 'working', run: () => setOpen(true) }]);
  if (!result.verdict) {
    return <WorkingDialog working={result.working} show={open} onHide={() => setOpen(false)} />;
  }
  return (
    <div className="verdict" aria-live="polite">
      <VerdictMark call={result.verdict.call} />
      <div>
        <p className={`call ${verdictClass(result.verdict.call)}`}>{result.verdict.call}</p>
        <p>
          {result.verdict.sentence} <WorkingLink working={result.verdict.working} />
        </p>
      </div>
      <WorkingDialog working={result.verdict.working} show={open} onHide={() => setOpen(false)} />
    </div>
  );
}
