import type { Asked, Job } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { useChange } from '../job/useJob';

/** What is asked of the pump before the work goes on. The answer is kept with the details of the job. */
export function AskedTask({ job, view }: { job: Job; view: Asked }) {
  const save = useChange('details', job.number);
  return (
    <section className="asked" aria-label={view.name}>
      <p className="kicker">{view.name}</p>
      <div className="choices" role="group" aria-label={`${view.name}, answers`}>
        {view.answers.map((one) => (
          <button
            key={one.key}
            type="button"
            className="tool"
            aria-pressed={one.key === view.answer}
            disabled={Boolean(job.signed) || save.isPending}
            onClick={() => save.mutate({ build: { [view.option]: one.key } })}
          >
            {one.name}
          </button>
        ))}
        {view.answer === '' && <b className="warning">not known yet</b>}
      </div>
      <ProblemNote error={save.error} onConfirm={save.confirm} />
    </section>
  );
}

/** What the present step of a stage asks. */
export function NowAsked({ job, stage }: { job: Job; stage: string }) {
  const named = job.steps.find((s) => s.stage === stage && s.by === null)?.tasks ?? [];
  return job.tasks.map((one) =>
    one.kind === 'asked' && named.includes(one.key) ? <AskedTask key={one.key} job={job} view={one} /> : null,
  );
}
