import { useMemo, useState } from 'react';
import { Button } from 'react-bootstrap';
import type { Job, JobDetails as Details } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { FormSelect, FormText } from '../../app/form';
import { useDraftForm, type DraftForm } from '../../app/useDraftForm';
import { useUnit } from '../../app/unit';
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

interface FormProps {
  job: Job;
  /** Everything, not only what is missing. */
  whole: boolean;
  onSaved: () => void;
}

/** What is known of a job, to be put right; or of it what is missing. */
export function DetailsForm({ job, whole, onSaved }: FormProps) {
  const { details } = job;
  const { unit } = useUnit();
  const { signs } = useWorks();
  const signOf = (name: string) => (name === 'hours_run' ? 'h' : signs[MEASURED[name] ?? '']?.[unit]) ?? '';
  // Two points of a viscosity carry a temperature, whose bare number is in the unit that is on, too.
  const known = useMemo(() => begun(details), [details]);
  const form = useDraftForm(known, (name) => (name === 'hours_run' ? '' : signOf(name)));
  const save = useChange('details', job.number);
  const asked = (key: string) => whole || lacks(details, key);
  return (
    <form
      className="panel details-form"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate(changeOf(form.changed()), { onSuccess: onSaved });
      }}
    >
      <div className="field-grid">
        {choicesOf(details)
          .filter(({ name }) => asked(name))
          .map((one) => (
            <FormSelect key={one.name} form={form} {...one} />
          ))}
        {TEXTS.filter(([key]) => asked(key)).map(([key, label]) => (
          <FormText
            key={key}
            form={form}
            name={key}
            label={signOf(key) ? `${label} (${signOf(key)})` : label}
            maxLength={200}
          />
        ))}
        {whole && <BuildChoices details={details} form={form} />}
      </div>
      <MeterReplaced form={form} asked={asked('hours_run')} begun={details.old_meter_last !== ''} />
      <ProblemNote error={save.error} onConfirm={save.confirm} />
      <Button type="submit" disabled={save.isPending}>
        Save what is known
      </Button>
    </form>
  );
}

const BUILD = 'build:';

/** Every field as it is known now. A choice of the build has its option's name behind a word of its own. */
function begun(details: Details): Record<string, string> {
  const { symptom, place, medium, old_meter_last, new_meter_first } = details;
  return {
    ...Object.fromEntries(TEXTS.map(([key]) => [key, details[key]])),
    ...{ symptom, place, medium, old_meter_last, new_meter_first },
    ...Object.fromEntries(details.build.map((b) => [BUILD + b.key, b.choice])),
  };
}

/** What was changed, as it is sent: the build in one. */
function changeOf(changed: Record<string, string>) {
  const names = Object.keys(changed);
  const pick = (wanted: boolean) => names.filter((name) => name.startsWith(BUILD) === wanted);
  const build = Object.fromEntries(pick(true).map((name) => [name.slice(BUILD.length), changed[name] ?? '']));
  const texts = Object.fromEntries(pick(false).map((name) => [name, changed[name] ?? '']));
  return { ...texts, ...(Object.keys(build).length ? { build } : {}) };
}

/** What is chosen from a list. */
function choicesOf(details: Details) {
  const named = (all: readonly { key: string; name: string }[]) => all.map((m) => [m.key, m.name] as const);
  return [
    { name: 'symptom', label: 'Symptom', options: [['', 'choose'] as const, ...named(details.symptoms)] },
    {
      name: 'place',
      label: 'Where the work is done',
      options: [
        ['', 'choose'] as const,
        ['workshop', 'in the workshop'] as const,
        ['site', 'on site'] as const,
      ],
    },
    {
      name: 'medium',
      label: 'Kind of liquid, for its elastomers',
      options: [['', 'not in this list: ask the seal maker'] as const, ...named(details.media)],
    },
  ];
}

function BuildChoices({ details, form }: { details: Details; form: DraftForm }) {
  return details.build
    .filter((b) => !b.fixed)
    .map((b) => (
      <FormSelect
        key={b.key}
        form={form}
        name={BUILD + b.key}
        label={b.name}
        options={b.choices.map((c) => [c.key, c.name] as const)}
      />
    ));
}

interface MeterProps {
  form: DraftForm;
  asked: boolean;
  /** A replaced meter is known already. */
  begun: boolean;
}

/** Where the hours meter is not the one of the last overhaul. */
function MeterReplaced({ form, asked, begun: known }: MeterProps) {
  const [replaced, setReplaced] = useState(known);
  return (
    <>
      {asked && (
        <label className="tick">
          <input type="checkbox" checked={replaced} onChange={() => setReplaced(!replaced)} /> The hours meter
          was replaced since the last overhaul
        </label>
      )}
      {replaced && (
        <div className="try-check">
          <FormText form={form} name="old_meter_last" label="The old one's last reading (h)" />
          <FormText form={form} name="new_meter_first" label="The new one began at (h)" />
        </div>
      )}
    </>
  );
}

/** Whether a field is one of those still missing, by its value: only what is empty is asked for first. */
function lacks(details: Details, key: string): boolean {
  const first = ['serial', 'medium', 'hazards', 'hours_run', 'symptom', 'place'] as const;
  return first.some((name) => name === key && details[name] === '');
}
