import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Feature, type Job } from '../api/client';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { WorkingLink } from '../app/WorkingLink';
import { VerdictMark, verdictClass } from '../drawing/VerdictMark';
import { useChange } from './useJob';

/** Each verdict with its sentence, and what was decided. Going against a verdict asks for the reason. */
export function Decide({ job }: { job: Job }) {
  const judged = job.features.filter((f) => f.found?.verdict);
  const open = judged.filter((f) => f.open_decision).length;
  return (
    <div className="stage decide">
      <p className="lead">
        {judged.length === 0
          ? 'Nothing has been measured against a limit yet. Inspect comes first.'
          : open
            ? `${open} to decide. What is kept beyond doubt needs nothing.`
            : 'Nothing is open.'}
      </p>
      {judged.map((feature) => (
        <Line key={feature.key} job={job} feature={feature} />
      ))}
    </div>
  );
}

function Line({ job, feature }: { job: Job; feature: Feature }) {
  const [reason, setReason] = useState('');
  const [wanted, setWanted] = useState<'keep' | 'change' | null>(null);
  const decide = useChange('decisions', job.number);
  const verdict = feature.found?.verdict;
  if (!verdict) return null;
  function choose(decided: 'keep' | 'change') {
    const asks = decided === 'keep' ? feature.reason_to_keep : feature.reason_to_change;
    if (asks && !reason.trim()) {
      setWanted(decided);
      return;
    }
    decide.mutate(
      { id: newId(), feature: feature.key, decided, reason },
      {
        onSuccess: () => {
          setWanted(null);
          setReason('');
        },
      },
    );
  }
  const settled = feature.decision;
  return (
    <article className={`decision${feature.open_decision ? ' open' : ''}`} aria-label={feature.name}>
      <VerdictMark call={verdict.call} size={40} />
      <div className="what">
        <h2>
          {feature.number}. {feature.name} <span className={verdictClass(verdict.call)}>{verdict.call}</span>
        </h2>
        <p>
          <b>{feature.found?.text}</b> ± {feature.found?.expanded_text}, {feature.limit_text}.{' '}
          {verdict.sentence} <WorkingLink working={verdict.working} />
        </p>
        {settled && (
          <p className="settled">
            {settled.by}: <b>{settled.decided === 'keep' ? 'keep' : 'change'}</b>
            {settled.reason ? `, because: ${settled.reason}` : ''}
          </p>
        )}
        {wanted && (
          <TextField
            autoFocus
            label={`${wanted === 'keep' ? 'Keeping it' : 'Changing it'} goes against the verdict. Why?`}
            value={reason}
            maxLength={300}
            onChange={setReason}
            onEnter={() => choose(wanted)}
          />
        )}
        <ProblemNote error={decide.error} />
      </div>
      <div className="choices">
        <Button
          variant={settled?.decided === 'change' ? 'primary' : 'outline-primary'}
          aria-pressed={settled?.decided === 'change'}
          disabled={job.signed !== null || decide.isPending}
          onClick={() => choose('change')}
        >
          Change
        </Button>
        <Button
          variant={settled?.decided === 'keep' ? 'primary' : 'outline-primary'}
          aria-pressed={settled?.decided === 'keep'}
          disabled={job.signed !== null || decide.isPending}
          onClick={() => choose('keep')}
        >
          Keep{feature.reason_to_keep ? ', with a reason' : ''}
        </Button>
      </div>
    </article>
  );
}
