import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from 'react-bootstrap';
import { useFieldArray, useForm, type UseFormReturn } from 'react-hook-form';
import { Link, useParams } from 'react-router';
import { client, newId, unwrap, type Procedure, type ProcedureStep } from '../api/client';
import { meQuery, procedureQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { day } from '../app/time';
import { STAGES } from '../bench/job/stages';
import { StepRow, type Written } from './StepRow';

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

function useKeep(procedure: Procedure) {
  const cache = useQueryClient();
  return useMutation({
    retry: false,
    mutationFn: ({ steps, conventions }: Written) =>
      unwrap(
        client.PUT('/api/procedures/{family}', {
          params: { path: { family: procedure.family } },
          body: {
            version: procedure.version,
            steps: steps.map(asKept),
            conventions: Object.fromEntries(conventions.map((c) => [c.key, c.choice])),
          },
        }),
      ),
    onSuccess: (kept) => {
      cache.setQueryData(['procedure', procedure.family], kept);
      void cache.invalidateQueries({ queryKey: ['procedures'] });
    },
  });
}

function Editor({ procedure }: { procedure: Procedure }) {
  const me = useQuery(meQuery);
  const lead = me.data?.role === 'lead';
  const form = useForm<Written>({
    defaultValues: { steps: procedure.steps, conventions: procedure.conventions },
  });
  const { fields, move, insert, remove } = useFieldArray({ control: form.control, name: 'steps' });
  const keep = useKeep(procedure);
  const at = fields.map((step, index) => ({ step, index }));
  return (
    <form onSubmit={(event) => void form.handleSubmit((written) => keep.mutate(written))(event)}>
      <div className="sheet-head">
        <Head procedure={procedure} />
        {lead && (
          <Button type="submit" disabled={!form.formState.isDirty || keep.isPending}>
            Save as version {procedure.version + 1}
          </Button>
        )}
      </div>
      <ProblemNote error={keep.error} />
      <Conventions procedure={procedure} form={form} lead={lead} />
      {STAGES.map(([stage, name]) => {
        const mine = at.filter(({ step }) => step.stage === stage);
        const last = mine.at(-1);
        if (!last) return null;
        return (
          <section key={stage} aria-label={name}>
            <h2>{name}</h2>
            <ol className="procedure">
              {mine.map(({ step, index }, i) => (
                <StepRow
                  key={step.key}
                  form={form}
                  index={index}
                  lead={lead}
                  earlier={mine[i - 1]?.index}
                  later={mine[i + 1]?.index}
                  onMove={(to) => move(index, to)}
                  onRemove={() => remove(index)}
                />
              ))}
            </ol>
            {lead && (
              <button type="button" className="tool" onClick={() => insert(last.index + 1, ownStep(stage))}>
                Add a step of our own to {name}
              </button>
            )}
          </section>
        );
      })}
    </form>
  );
}

/** Where practitioners differ: what this shop does, unless a sheet says otherwise. */
function Conventions({
  procedure,
  form,
  lead,
}: {
  procedure: Procedure;
  form: UseFormReturn<Written>;
  lead: boolean;
}) {
  if (!procedure.conventions.length) return null;
  return (
    <section aria-label="Conventions">
      <h2>Where practitioners differ</h2>
      <p className="quiet">
        What a sheet says comes before this. What nobody has said is not stated at the bench.
      </p>
      <div className="conventions">
        {procedure.conventions.map((one, i) => (
          <label key={one.key} className="inline-field">
            {one.name}{' '}
            <select disabled={!lead} {...form.register(`conventions.${i}.choice`)}>
              {one.choices.map((choice) => (
                <option key={choice.key} value={choice.key}>
                  {choice.name}
                </option>
              ))}
            </select>
          </label>
        ))}
      </div>
    </section>
  );
}

function Head({ procedure }: { procedure: Procedure }) {
  return (
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
  );
}

/** What is kept of a step: the family's own words are not copied, so that a better wording of theirs is seen. */
function asKept(s: ProcedureStep) {
  const { key, stage, hold, why } = s;
  return s.declared === ''
    ? { key, stage, text: s.text, why, hold }
    : { key, stage, text: s.text === s.declared ? '' : s.text, why: '', hold: false };
}

function ownStep(stage: string): ProcedureStep {
  const key = `own-${newId().slice(0, 8)}`;
  return { key, stage, text: '', why: '', declared: '', hold: false, caution: false, when: '' };
}
