import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Feature, type Job, type Judged } from '../../api/client';
import { Lines } from '../../app/Lines';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { WorkingLink } from '../../app/WorkingLink';
import { VerdictMark, verdictClass } from '../../drawing/VerdictMark';
import { OrderPanel } from './OrderPanel';
import { StrikeOut } from '../job/StrikeOut';
import { useChange } from '../job/useJob';
import { WearPanel } from '../inspect/WearPanel';

/** Each verdict with its sentences, and what was decided; beside it what has to be ordered. */
export function Decide({ job }: { job: Job }) {
  const judged = job.features.filter((f) => f.judged);
  const asking = judged.filter((f) => f.open_decision || f.decision || f.judged?.verdict !== 'Keep');
  const kept = judged.filter((f) => !asking.includes(f));
  const open = judged.filter((f) => f.open_decision).length;
  const [unfolded, setUnfolded] = useState(false);
  return (
    <div className="stage decide-and-order">
      <section className="decide" aria-label="Decisions">
        <p className="lead">
          {judged.length === 0
            ? 'Nothing has been measured against a limit yet. Inspect comes first.'
            : open
              ? `${open} to decide. What is kept beyond doubt needs nothing.`
              : 'Nothing is open.'}
        </p>
        {job.explained && <p className="explained">{job.explained.sentence}</p>}
        {asking.map((feature) => (
          <Line key={feature.key} job={job} feature={feature} />
        ))}
        {kept.length > 0 && (
          <button
            type="button"
            className="fold"
            aria-expanded={unfolded}
            onClick={() => setUnfolded(!unfolded)}
          >
            {kept.length} kept beyond doubt {unfolded ? '▴' : '▾'}
          </button>
        )}
        {unfolded && kept.map((feature) => <Line key={feature.key} job={job} feature={feature} />)}
        {job.slip.found.length > 0 && (
          <section aria-label="What the gaps cost">
            <h2>What the gaps cost, as it came in</h2>
            <Lines lines={job.slip.found} />
          </section>
        )}
      </section>
      <OrderPanel job={job} />
    </div>
  );
}

type Choice = 'keep' | 'change';

interface Wanted {
  decided: Choice;
  parts: string[];
}

const nameOf = (job: Job, key: string) =>
  (job.features.find((f) => f.key === key)?.name ?? key).toLowerCase();

/** How a feature can be changed: a pair by the one part, by the other, or by both, each in one press. */
function ways(job: Job, feature: Feature): { label: string; parts: string[] }[] {
  if (!feature.parts.length) return [{ label: 'Change', parts: [] }];
  const each = feature.parts.map((key) => ({ label: `Change ${nameOf(job, key)}`, parts: [key] }));
  return [...each, { label: 'Change both', parts: feature.parts }];
}

function isSettled(settled: Feature['decision'], parts: string[]): boolean {
  return settled?.decided === 'change' && settled.parts.join() === parts.join();
}

function Line({ job, feature }: { job: Job; feature: Feature }) {
  const { judged } = feature;
  const deciding = useDeciding(job, feature);
  if (!judged) return null;
  return (
    <article
      className={`decision${feature.open_decision ? ' open' : ''}${feature.parts.length ? ' pair' : ''}`}
      aria-label={feature.name}
    >
      <VerdictMark verdict={judged.verdict} size={40} />
      <div className="what">
        <h2>
          {feature.number}. {feature.name}{' '}
          <span className={verdictClass(judged.verdict)}>{judged.verdict}</span>
        </h2>
        <Judgement job={job} feature={feature} judged={judged} />
        <PairOptions feature={feature} />
        <Settled job={job} feature={feature} />
        <WhyField deciding={deciding} />
        <ProblemNote error={deciding.error} />
      </div>
      <Ways job={job} feature={feature} deciding={deciding} />
    </article>
  );
}

/** A decision of a feature; one against the verdict waits for its reason. */
function useDeciding(job: Job, feature: Feature) {
  const [reason, setReason] = useState('');
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const decide = useChange('decisions', job.number);
  const choose = (decided: Choice, parts: string[] = []) => {
    const asks = decided === 'keep' ? feature.reason_to_keep : feature.reason_to_change;
    if (asks && !reason.trim()) {
      setWanted({ decided, parts });
      return;
    }
    decide.mutate(
      { id: newId(), feature: feature.key, decided, reason, parts },
      {
        onSuccess: () => {
          setWanted(null);
          setReason('');
        },
      },
    );
  };
  return {
    reason,
    setReason,
    wanted,
    choose,
    error: decide.error,
    off: job.signed !== null || decide.isPending,
  };
}

type Deciding = ReturnType<typeof useDeciding>;

/** The size against its limit, the verdict's sentence and reasons, and how it wears. */
function Judgement({ job, feature, judged }: { job: Job; feature: Feature; judged: Judged }) {
  const [charting, setCharting] = useState(false);
  return (
    <p>
      {feature.found && (
        <>
          <b>{feature.found.text}</b> ± {feature.found.expanded_text}, {feature.limit_text}.{' '}
        </>
      )}
      {judged.sentence} {judged.reasons.join(' ')}{' '}
      {judged.working && <WorkingLink working={judged.working} />}{' '}
      {feature.forecast && (
        <button type="button" className="working-link" onClick={() => setCharting(true)}>
          wear chart
        </button>
      )}
      {charting && <WearPanel job={job} feature={feature} onHide={() => setCharting(false)} />}
    </p>
  );
}

/** What was decided, by whom and why. */
function Settled({ job, feature }: { job: Job; feature: Feature }) {
  const settled = feature.decision;
  if (!settled) {
    return feature.by_parts ? <p className="settled">Decided by what is changed of its parts.</p> : null;
  }
  return (
    <div className="settled">
      {settled.by}: <b>{settled.decided}</b>
      {settled.parts.length > 0 && ` ${settled.parts.map((key) => nameOf(job, key)).join(' and ')}`}
      {settled.reason ? `, because: ${settled.reason}` : ''}{' '}
      <StrikeOut
        job={job}
        kind="decision"
        record={settled.id}
        what={`${feature.name}: ${settled.decided}`}
        warns="A pair and its parts are one decision."
      />
    </div>
  );
}

/** Why, where it goes against the verdict, or where the server asked. */
function WhyField({ deciding }: { deciding: Deciding }) {
  const { reason, setReason, wanted, choose, error } = deciding;
  if (wanted) {
    return (
      <TextField
        autoFocus
        label={`${wanted.decided === 'keep' ? 'Keeping it' : 'Changing it'} goes against the verdict. Why?`}
        value={reason}
        maxLength={300}
        onChange={setReason}
        onEnter={() => choose(wanted.decided, wanted.parts)}
      />
    );
  }
  if (!error) return null;
  return <TextField label="The reason, in a few words" value={reason} maxLength={300} onChange={setReason} />;
}

/** What can be decided, each in one press. */
function Ways({ job, feature, deciding }: { job: Job; feature: Feature; deciding: Deciding }) {
  const settled = feature.decision;
  const kept = settled?.decided === 'keep';
  return (
    <div className="choices">
      {ways(job, feature).map(({ label, parts }) => (
        <Button
          key={label}
          variant={isSettled(settled, parts) ? 'primary' : 'outline-primary'}
          aria-pressed={isSettled(settled, parts)}
          disabled={deciding.off}
          onClick={() => deciding.choose('change', parts)}
        >
          {label}
        </Button>
      ))}
      <Button
        variant={kept ? 'primary' : 'outline-primary'}
        aria-pressed={kept}
        disabled={deciding.off}
        onClick={() => deciding.choose('keep')}
      >
        Keep{feature.reason_to_keep ? ', with a reason' : ''}
      </Button>
    </div>
  );
}

/** What the clearance would be with the one part new, the other, or both. */
function PairOptions({ feature }: { feature: Feature }) {
  if (!feature.options.length) return null;
  return (
    <ul className="options">
      {feature.options.map((o) => (
        <li key={o.text}>
          <VerdictMark verdict={o.verdict} size={22} /> {o.text}{' '}
          <span className={verdictClass(o.verdict)}>{o.verdict}</span>
        </li>
      ))}
    </ul>
  );
}
