import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from 'react-bootstrap';
import { useForm, useWatch, type UseFormRegister } from 'react-hook-form';
import { useNavigate, useSearchParams } from 'react-router';
import { client } from '../../api/client';
import { freePumpsQuery, symptomsQuery } from '../../api/queries';
import { heldBy, joined } from '../../api/sections';
import { Finder } from '../../app/Finder';
import { ProblemNote } from '../../app/ProblemNote';
import { useUnit } from '../../app/unit';
import { useTyped } from '../../app/useTyped';
import type { Entered } from '../../app/works';

interface Given {
  pump: string;
  reason: string;
  hours_run: string;
  symptom: string;
}

function useOpen() {
  const navigate = useNavigate();
  const cache = useQueryClient();
  return useTyped(
    (body: Given & Entered) =>
      client.POST('/api/jobs', { params: { query: { unit: body.unit }, header: heldBy(undefined) }, body }),
    (answer) => {
      const job = joined(undefined, answer);
      cache.setQueryData(['job', job.number, job.unit], job);
      void cache.invalidateQueries({ queryKey: ['jobs'] });
      void navigate(`/bench/${job.number}/prepare`);
    },
  );
}

/** A pump comes to the bench: which one, and why. */
export function OpenJob() {
  const [search] = useSearchParams();
  const { unit } = useUnit();
  const { register, control, handleSubmit, setValue } = useForm<Given>({
    defaultValues: { pump: search.get('pump') ?? '', reason: '', hours_run: '', symptom: '' },
  });
  const open = useOpen();
  const pump = useWatch({ control, name: 'pump' });
  return (
    <form className="panel" onSubmit={(event) => void handleSubmit((given) => open.mutate(given))(event)}>
      <h2>Open a job</h2>
      <Finder
        label="Pump"
        find="Find a pump by tag, service, place or serial"
        what="the pumps"
        ask={(sought) => freePumpsQuery(unit, sought || (search.get('pump') ?? ''))}
        keyOf={(p) => p.tag}
        isTaken={(p) => p.on_bench !== null}
        value={pump}
        onChoose={(tag) => {
          setValue('pump', tag);
          setValue('symptom', ''); // of another family, it may be
        }}
      >
        {(p) => (
          <>
            <b>{p.tag}</b> {p.service}
            <small>
              {p.on_bench
                ? `on the bench, job ${p.on_bench}`
                : `${p.sheet}, ${p.liquid}${p.lent ? `; on loan, ${p.location}` : `, ${p.location}`}`}
            </small>
          </>
        )}
      </Finder>
      {pump && <p className="chosen">Job on {pump}</p>}
      <Symptoms pump={pump} register={register} />
      <label className="field">
        Why it came in
        <input type="text" autoComplete="off" maxLength={200} {...register('reason')} />
      </label>
      <label className="field">
        Hours run, or what its meter counts, if known
        <input type="text" inputMode="numeric" autoComplete="off" maxLength={20} {...register('hours_run')} />
      </label>
      <ProblemNote error={open.error} onConfirm={open.confirm} />
      <Button type="submit" size="lg" disabled={open.isPending}>
        Open job
      </Button>
    </form>
  );
}

/** What may be wrong with a pump of its family. */
function Symptoms({ pump, register }: { pump: string; register: UseFormRegister<Given> }) {
  const { data: symptoms = [] } = useQuery({ ...symptomsQuery(pump), enabled: pump !== '' });
  if (!symptoms.length) return null;
  return (
    <label className="field">
      Symptom
      <select {...register('symptom')}>
        <option value="">none of these</option>
        {symptoms.map((s) => (
          <option key={s.key} value={s.key}>
            {s.name}
          </option>
        ))}
      </select>
    </label>
  );
}
