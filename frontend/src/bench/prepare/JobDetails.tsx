import { useState } from 'react';
import { Button } from 'react-bootstrap';
import type { Job, JobDetails as Details } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { useDrafts, useUnit } from '../../app/unit';
import { useWorks } from '../../app/works';
import { useChange } from '../job/useJob';

const TEXTS = [
  ['serial', 'Serial, off the nameplate'],
  ['liquid', 'Liquid'],
  ['hazards', 'Its hazards'],
  ['viscosity', 'Viscosity when pumping, or two points, each at its temperature in C or F'],
  ['temperature', 'Temperature'],
  ['casing', 'Casing temperature'],
  ['start', 'Coldest start'],
  ['hot', 'Hottest running'],
  ['density', 'Density'],
  ['pressure', 'Differential pressure'],
  ['speed', 'Speed'],
  ['hours_run', 'Hours on the meter'],
  ['reason', 'Why it came in, in your words'],
  ['room', 'Room to work, lifting'],
] as const;

/** What of these is a number with a unit, which it is read in where none is typed. */
const MEASURED: Record<string, string> = {
  viscosity: 'viscosity',
  temperature: 'temperature',
  casing: 'temperature',
  start: 'temperature',
  hot: 'temperature',
  density: 'density',
  pressure: 'pressure',
  speed: 'speed',
  hours_run: 'hours',
};

type TextKey = (typeof TEXTS)[number][0];

/** What has to be known before anything is opened: in one line when it is, a form when it is not. */
export function JobDetails({ job }: { job: Job }) {
  const { details } = job;
  const missing = details.missing.length > 0;
  const [whole, setWhole] = useState(false);
  const open = whole || (missing && !job.signed);
  return (
    <section className="job-details" aria-label="What is known">
      <p>
        {missing ? (
          <b className="warning">Not known yet: {details.missing.join(', ')}.</b>
        ) : (
          <>
            {details.symptoms.find((s) => s.key === details.symptom)?.name ?? details.reason} ·{' '}
            {details.liquid}
            {details.hazards ? ` (${details.hazards})` : ''} · {details.hours_run} h · {details.place}
            {details.room ? `, ${details.room}` : ''}
          </>
        )}{' '}
        {!job.signed && (
          <button
            type="button"
            className="working-link"
            aria-expanded={whole}
            onClick={() => setWhole(!whole)}
          >
            {whole ? 'fold' : 'all that is known'}
          </button>
        )}
      </p>
      {open && (
        <DetailsForm key={details.missing.join()} job={job} whole={whole} onSaved={() => setWhole(false)} />
      )}
    </section>
  );
}

interface FormProps {
  job: Job;
  /** Everything, not only what is missing. */
  whole: boolean;
  onSaved: () => void;
}

function DetailsForm({ job, whole, onSaved }: FormProps) {
  const { details } = job;
  const { unit } = useUnit();
  const { signs } = useWorks();
  const signOf = (name: string) => (name === 'hours_run' ? 'h' : signs[MEASURED[name] ?? '']?.[unit]) ?? '';
  // Two points of a viscosity carry a temperature, whose bare number is in the unit that is on, too.
  const [text, put] = useDrafts({}, (name) => (name === 'hours_run' ? '' : signOf(name)));
  const [build, setBuild] = useState<Record<string, string>>({});
  const [meter, setMeter] = useState(details.old_meter_last !== '');
  const save = useChange('details', job.number);
  const value = (key: TextKey | 'symptom' | 'place' | 'medium' | 'old_meter_last' | 'new_meter_first') =>
    text[key] ?? details[key];
  const asked = (key: string) => whole || lacks(details, key);
  return (
    <form
      className="panel details-form"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate({ ...text, ...(Object.keys(build).length ? { build } : {}) }, { onSuccess: onSaved });
      }}
    >
      <div className="field-grid">
        {asked('symptom') && (
          <label className="field">
            Symptom
            <select value={value('symptom')} onChange={(e) => put('symptom', e.target.value)}>
              <option value="">choose</option>
              {details.symptoms.map((s) => (
                <option key={s.key} value={s.key}>
                  {s.name}
                </option>
              ))}
            </select>
          </label>
        )}
        {asked('place') && (
          <label className="field">
            Where the work is done
            <select value={value('place')} onChange={(e) => put('place', e.target.value)}>
              <option value="">choose</option>
              <option value="workshop">in the workshop</option>
              <option value="site">on site</option>
            </select>
          </label>
        )}
        {asked('medium') && (
          <label className="field">
            Kind of liquid, for its elastomers
            <select value={value('medium')} onChange={(e) => put('medium', e.target.value)}>
              <option value="">not in this list: ask the seal maker</option>
              {details.media.map((m) => (
                <option key={m.key} value={m.key}>
                  {m.name}
                </option>
              ))}
            </select>
          </label>
        )}
        {TEXTS.filter(([key]) => asked(key)).map(([key, label]) => (
          <TextField
            key={key}
            label={signOf(key) ? `${label} (${signOf(key)})` : label}
            value={value(key)}
            maxLength={200}
            onChange={(typed) => put(key, typed)}
          />
        ))}
        {details.build
          .filter((b) => whole && !b.fixed)
          .map((b) => (
            <label className="field" key={b.key}>
              {b.name}
              <select
                value={build[b.key] ?? b.choice}
                onChange={(e) => setBuild((now) => ({ ...now, [b.key]: e.target.value }))}
              >
                {b.choices.map((c) => (
                  <option key={c.key} value={c.key}>
                    {c.name}
                  </option>
                ))}
              </select>
            </label>
          ))}
      </div>
      {asked('hours_run') && (
        <label className="tick">
          <input type="checkbox" checked={meter} onChange={() => setMeter(!meter)} /> The hours meter was
          replaced since the last overhaul
        </label>
      )}
      {meter && (
        <div className="try-check">
          <TextField
            label="The old one's last reading (h)"
            value={value('old_meter_last')}
            onChange={(typed) => put('old_meter_last', typed)}
          />
          <TextField
            label="The new one began at (h)"
            value={value('new_meter_first')}
            onChange={(typed) => put('new_meter_first', typed)}
          />
        </div>
      )}
      <ProblemNote error={save.error} onConfirm={save.confirm} />
      <Button type="submit" disabled={save.isPending}>
        Save what is known
      </Button>
    </form>
  );
}

/** Whether a field is one of those still missing, by its value: only what is empty is asked for first. */
function lacks(details: Details, key: string): boolean {
  const first = ['serial', 'medium', 'hazards', 'hours_run', 'symptom', 'place'] as const;
  return first.some((name) => name === key && details[name] === '');
}
