import { useWatch } from 'react-hook-form';
import type { PumpChoices, PumpDetail, PumpOption, Unit } from '../api/client';
import { FormSelect, FormText } from '../app/form';
import type { DraftForm } from '../app/useDraftForm';

/** The lines that are typed: the field, its words, and the kind of quantity it is. */
const LINES = [
  ['tag', 'Tag', ''],
  ['service', 'What it does', ''],
  ['location', 'Where it stands', ''],
  ['serial', 'Serial, off the nameplate', ''],
  ['liquid', 'Liquid', ''],
  ['hazards', 'Its hazards', ''],
  ['viscosity', 'Viscosity when pumping, or two points, each at its temperature in C or F', 'viscosity'],
  ['temperature', 'Temperature', 'temperature'],
  ['casing', 'Casing temperature', 'temperature'],
  ['start', 'Coldest start', 'temperature'],
  ['hot', 'Hottest running', 'temperature'],
  ['density', 'Density', 'density'],
  ['pressure', 'Differential pressure', 'pressure'],
  ['speed', 'Speed', 'speed'],
] as const;
const MORE = ['overhaul_every', 'hours_per_week', 'counts', 'per_hour'] as const;
const COUNTS = [
  ['h', 'hours'],
  ['starts', 'starts'],
  ['m3', 'cubic metres'],
] as const;
const KINDS: Record<string, string> = Object.fromEntries(LINES.map(([name, , kind]) => [name, kind]));

// No point in it: the form would take it for a field within a field.
const BUILT = 'built-';

/** The unit a bare number of a field is in. */
// eslint-disable-next-line react-refresh/only-export-components -- what a form begins with belongs beside its fields
export function signsOf(signs: Record<string, Partial<Record<Unit, string>>>, unit: Unit) {
  return (name: string) => signs[KINDS[name] ?? '']?.[unit] ?? '';
}

/** Where there is one material, it is the one. */
const only = (materials: readonly string[]) => (materials.length === 1 ? (materials[0] ?? '') : '');

/** What the form begins with: the pump as it is, or nothing but what its sheet says. */
// eslint-disable-next-line react-refresh/only-export-components -- what a form begins with belongs beside its fields
export function textsOf(choices: PumpChoices, page?: PumpDetail): Record<string, string> {
  const { materials } = choices;
  const kept: Record<string, unknown> = page ? { ...page.line, ...page.entered } : {};
  const fields = [...LINES.map(([name]) => name), ...MORE, 'medium'];
  const build = page?.entered.build ?? {};
  return {
    ...Object.fromEntries(fields.map((name) => [name, typeof kept[name] === 'string' ? kept[name] : ''])),
    sheet: choices.sheet,
    counts: page?.entered.counts ?? 'h',
    material: page?.entered.material ?? only(materials),
    ...Object.fromEntries(choices.options.map((o) => [BUILT + o.key, build[o.key] ?? o.usual])),
  };
}

/** The same for another sheet: what it does not have of material or build is chosen anew, by what it says itself. */
// eslint-disable-next-line react-refresh/only-export-components -- what a form begins with belongs beside its fields
export function rebuilt(texts: Record<string, string>, choices: PumpChoices): Record<string, string> {
  const { materials } = choices;
  const has = (option: PumpOption) => option.choices.some((c) => c.key === texts[BUILT + option.key]);
  return {
    ...Object.fromEntries(Object.entries(texts).filter(([name]) => !name.startsWith(BUILT))),
    sheet: choices.sheet,
    material: materials.find((m) => m === texts.material) ?? only(materials),
    ...Object.fromEntries(
      choices.options.map((o) => [BUILT + o.key, (has(o) && texts[BUILT + o.key]) || o.usual]),
    ),
  };
}

/** What was typed, and in which options the pump differs from its sheet. */
// eslint-disable-next-line react-refresh/only-export-components -- what a form ends with belongs beside its fields
export function buildOf(form: DraftForm, choices: PumpChoices) {
  const typed = form.texts();
  const differs = choices.options.filter((o) => has(o, choices, typed) && typed[BUILT + o.key] !== o.usual);
  return {
    texts: Object.fromEntries(Object.entries(typed).filter(([name]) => !name.startsWith(BUILT))),
    build: Object.fromEntries(differs.map((o) => [o.key, typed[BUILT + o.key] ?? ''])),
  };
}

/** Whether a pump with these choices has an option at all. */
function has(option: PumpOption, choices: PumpChoices, chosen: Record<string, string>): boolean {
  return Object.entries(option.when).every(([key, wanted]) => {
    const usual = choices.options.find((o) => o.key === key)?.usual;
    const now = chosen[BUILT + key] ?? usual;
    // What is not the pump's to choose is the sheet's, and was looked at there.
    return now === undefined || wanted.includes(now);
  });
}

interface Props {
  form: DraftForm;
  choices: PumpChoices;
  wet: boolean;
  onWet: (wet: boolean) => void;
}

/** What has to be known of a pump: off its nameplate, of its duty, and how it is built. */
export function PumpFields({ form, choices, wet, onWet }: Props) {
  const label = (name: string, words: string) =>
    form.now(name) && KINDS[name] ? `${words} (${form.now(name)})` : words;
  return (
    <>
      <div className="field-grid">
        {LINES.map(([name, words]) => (
          <FormText key={name} form={form} name={name} label={label(name, words)} maxLength={120} />
        ))}
        <FormText form={form} name="overhaul_every" label="Overhauled every (h)" />
        <FormText form={form} name="hours_per_week" label="Hours a week (h), where the meter does not tell" />
        <FormSelect form={form} name="counts" label="Its meter counts" options={COUNTS} />
        <FormText
          form={form}
          name="per_hour"
          label="Starts or m³ to an hour of running, where it counts those"
        />
        <FormSelect
          form={form}
          name="material"
          label="Material, as the clearance table names it"
          options={[['', 'choose'] as const, ...choices.materials.map((m) => [m, m] as const)]}
        />
        <FormSelect
          form={form}
          name="medium"
          label="Kind of liquid, for its elastomers"
          options={[
            ['', 'not in this list: ask the seal maker'] as const,
            ...choices.media.map((m) => [m.key, m.name] as const),
          ]}
        />
        <Built form={form} choices={choices} />
      </div>
      <label className="tick">
        <input type="checkbox" checked={wet} onChange={() => onWet(!wet)} /> A wet or condensing place
      </label>
    </>
  );
}

/** In what pumps of the sheet differ, as far as one with what is chosen so far has it. */
function Built({ form, choices }: { form: DraftForm; choices: PumpChoices }) {
  useWatch({ control: form.control });
  const chosen = form.texts();
  return choices.options
    .filter((option) => has(option, choices, chosen))
    .map((option) => (
      <FormSelect
        key={option.key}
        form={form}
        name={BUILT + option.key}
        label={option.name}
        options={option.choices.map((c) => [c.key, c.name] as const)}
      />
    ));
}
