import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from 'react-bootstrap';
import { useForm, useWatch, type UseFormRegister } from 'react-hook-form';
import { useNavigate, useSearchParams } from 'react-router';
import { client, type PumpLine } from '../../api/client';
import { pumpsQuery } from '../../api/queries';
import { heldBy, joined } from '../../api/sections';
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
  const pumps = useQuery(pumpsQuery(unit));
  const { register, control, handleSubmit } = useForm<Given>({
    defaultValues: { pump: search.get('pump') ?? '', reason: '', hours_run: '', symptom: '' },
  });
  const open = useOpen();
  const pump = useWatch({ control, name: 'pump' });
  const symptoms = pumps.data?.find((p) => p.tag === pump)?.symptoms ?? [];
  return (
    <form className="panel" onSubmit={(event) => void handleSubmit((given) => open.mutate(given))(event)}>
      <h2>Open a job</h2>
      <Pumps pumps={pumps.data ?? []} register={register} />
      {symptoms.length > 0 && (
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
      )}
      <label className="field">
        Why it came in
        <input type="text" autoComplete="off" maxLength={200} {...register('reason')} />
      </label>
      <label className="field">
        Hours run (h), if known
        <input type="text" inputMode="numeric" autoComplete="off" maxLength={20} {...register('hours_run')} />
      </label>
      <ProblemNote error={open.error} onConfirm={open.confirm} />
      <Button type="submit" size="lg" disabled={open.isPending}>
        Open job
      </Button>
    </form>
  );
}

/** Every pump; what can be opened stands first. */
function Pumps({ pumps, register }: { pumps: PumpLine[]; register: UseFormRegister<Given> }) {
  const free = [...pumps].sort((a, b) => Number(a.on_bench !== null) - Number(b.on_bench !== null));
  return (
    <fieldset>
      <legend>Pump</legend>
      <div className="pick-list">
        {free.map((p) => (
          <label key={p.tag} className={p.on_bench ? 'taken' : ''}>
            <input type="radio" value={p.tag} disabled={p.on_bench !== null} {...register('pump')} />
            <span>
              <b>{p.tag}</b> {p.service}
              <small>
                {p.on_bench
                  ? `on the bench, job ${p.on_bench}`
                  : `${p.sheet}, ${p.liquid}, ${p.viscosity} at ${p.temperature}`}
              </small>
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
