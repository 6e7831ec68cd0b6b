import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link, useParams } from 'react-router';
import { client, newId, unwrap, type Procedure, type ProcedureStep } from '../api/client';
import { meQuery, procedureQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { day } from '../app/time';
import { STAGES } from '../bench/job/stages';

/** A family's procedure as this shop follows it: a lead may reword, reorder and add steps. */
export function ProcedurePage() {
  const { family = '' } = useParams();
  const procedure = useQuery(procedureQuery(family));
  return (
    <div className="page">
      <Loaded query={procedure} what="the procedure">
        {(data) => <Editor key={data.version} procedure={data} />}
      </Loaded>
    </div>
  );
}

function Editor({ procedure }: { procedure: Procedure }) {
  const me = useQuery(meQuery);
  const lead = me.data?.role === 'lead';
  const cache = useQueryClient();
  const [steps, setSteps] = useState(procedure.steps);
  const changed = steps !== procedure.steps;
  const keep = useMutation({
    retry: false,
    mutationFn: () =>
      unwrap(
        client.PUT('/api/procedures/{family}', {
          params: { path: { family: procedure.family } },
          body: { version: procedure.version, steps: steps.map(asKept) },
        }),
      ),
    onSuccess: (kept) => {
      cache.setQueryData(['procedure', procedure.family], kept);
      void cache.invalidateQueries({ queryKey: ['procedures'] });
    },
  });
  const change = (key: string, to: Partial<ProcedureStep>) =>
    setSteps((now) => now.map((s) => (s.key === key ? { ...s, ...to } : s)));
  const move = (key: string, by: number) => setSteps((now) => moved(now, key, by));
  const add = (stage: string) => setSteps((now) => withOwn(now, stage));
  const remove = (key: string) => setSteps((now) => now.filter((s) => s.key !== key));
  return (
    <>
      <div className="sheet-head">
        <div>
          <h1>{procedure.name}: procedure</h1>
          <p className="quiet">
            {procedure.version
              ? `The shop's version ${procedure.version}, by ${procedure.by}, ${procedure.at ? day(procedure.at) : ''}.`
              : 'As Fine Gap lists it.'}{' '}
            Jobs already open stay with the version they began with. Steps for one build only say so.{' '}
            <Link to="/sheets">All sheets and procedures</Link>
          </p>
        </div>
        {lead && (
          <Button disabled={!changed || keep.isPending} onClick={() => keep.mutate()}>
            Save as version {procedure.version + 1}
          </Button>
        )}
      </div>
      <ProblemNote error={keep.error} />
      {STAGES.map(([stage, name]) => {
        const mine = steps.filter((s) => s.stage === stage);
        if (!mine.length) return null;
        return (
          <section key={stage} aria-label={name}>
            <h2>{name}</h2>
            <ol className="procedure">
              {mine.map((s, i) => (
                <StepRow
                  key={s.key}
                  step={s}
                  lead={lead}
                  first={i === 0}
                  last={i === mine.length - 1}
                  onChange={(to) => change(s.key, to)}
                  onMove={(by) => move(s.key, by)}
                  onRemove={() => remove(s.key)}
                />
              ))}
            </ol>
            {lead && (
              <button type="button" className="tool" onClick={() => add(stage)}>
                Add a step of our own to {name}
              </button>
            )}
          </section>
        );
      })}
    </>
  );
}

interface RowProps {
  step: ProcedureStep;
  lead: boolean;
  first: boolean;
  last: boolean;
  onChange: (to: Partial<ProcedureStep>) => void;
  onMove: (by: number) => void;
  onRemove: () => void;
}

function StepRow({ step, lead, first, last, onChange, onMove, onRemove }: RowProps) {
  const own = step.declared === '';
  return (
    <li>
      <div className="procedure-words">
        {lead ? (
          <textarea
            aria-label={own ? 'Step of our own' : `Step: ${step.declared}`}
            rows={2}
            maxLength={400}
            value={step.text}
            onChange={(event) => onChange({ text: event.target.value })}
          />
        ) : (
          <p>{step.text}</p>
        )}
        <small>
          {step.caution && 'Caution. '}
          {step.hold && 'Hold point. '}
          {own && 'Our own. '}
          {!own && step.text !== step.declared && `Reworded; it was: ${step.declared} `}
          {step.when && `Only: ${step.when}. `}
          {step.why}
        </small>
      </div>
      {lead && (
        <div className="procedure-moves">
          {own && (
            <label className="tick">
              <input
                type="checkbox"
                checked={step.hold}
                onChange={(event) => onChange({ hold: event.target.checked })}
              />{' '}
              hold point
            </label>
          )}
          <button
            type="button"
            className="tool"
            disabled={first}
            aria-label={`Earlier: ${step.text}`}
            onClick={() => onMove(-1)}
          >
            ↑
          </button>
          <button
            type="button"
            className="tool"
            disabled={last}
            aria-label={`Later: ${step.text}`}
            onClick={() => onMove(1)}
          >
            ↓
          </button>
          {own && (
            <button type="button" className="tool" onClick={onRemove}>
              Take out
            </button>
          )}
        </div>
      )}
    </li>
  );
}

/** What is kept of a step: the family's own words are not copied, so that a better wording of theirs is seen. */
function asKept(s: ProcedureStep) {
  const { key, stage, hold, why } = s;
  return s.declared === ''
    ? { key, stage, text: s.text, why, hold }
    : { key, stage, text: s.text === s.declared ? '' : s.text, why: '', hold: false };
}

function moved(steps: ProcedureStep[], key: string, by: number): ProcedureStep[] {
  const at = steps.findIndex((s) => s.key === key);
  const step = steps[at];
  const same = steps.flatMap((s, i) => (s.stage === step?.stage ? [i] : []));
  const to = same[same.indexOf(at) + by];
  if (!step || to === undefined) return steps;
  const rest = steps.filter((_, i) => i !== at);
  return [...rest.slice(0, to), step, ...rest.slice(to)];
}

function withOwn(steps: ProcedureStep[], stage: string): ProcedureStep[] {
  const last = steps.reduce((found, s, i) => (s.stage === stage ? i : found), -1);
  const own: ProcedureStep = {
    key: `own-${newId().slice(0, 8)}`,
    stage,
    text: '',
    why: '',
    declared: '',
    hold: false,
    caution: false,
    when: '',
  };
  return [...steps.slice(0, last + 1), own, ...steps.slice(last + 1)];
}
