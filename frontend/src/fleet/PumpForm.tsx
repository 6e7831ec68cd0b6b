import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { useNavigate } from 'react-router';
import { client, type PumpDetail } from '../api/client';
import { foundSheetsQuery } from '../api/queries';
import type { components } from '../api/schema';
import { ProblemNote } from '../app/ProblemNote';
import { FormSelect, FormText } from '../app/form';
import { Finder } from '../app/Finder';
import { useDraftField, useDraftForm, type DraftForm } from '../app/useDraftForm';
import { useUnit } from '../app/unit';
import { useWorks, type Entered } from '../app/works';
import { usePumpChange } from './usePumpChange';

type Given = Omit<components['schemas']['EditPumpRequest'], keyof Entered>;

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

/** A pump put right. Its open job keeps the duty it was opened with. */
export function PumpForm({ page, onHide }: { page: PumpDetail; onHide: () => void }) {
  const { unit } = useUnit();
  const { signs } = useWorks();
  const navigate = useNavigate();
  const kinds: Record<string, string> = Object.fromEntries(LINES.map(([name, , kind]) => [name, kind]));
  const signOf = (name: string) => signs[kinds[name] ?? '']?.[unit] ?? '';
  const [begun] = useState(() => begin(page));
  const form = useDraftForm(begun.texts, signOf);
  const [wet, setWet] = useState(page.wet);
  const save = usePumpChange(page.line.tag, (body: Given & Entered, at) =>
    client.PUT('/api/pumps/{tag}', { ...at, body }),
  );
  const send = () =>
    save.mutate({ ...begun.rest, ...form.texts(), wet } as Given, {
      onSuccess: (saved) => {
        onHide();
        void navigate(`/fleet/${encodeURIComponent(saved.line.tag)}`, { replace: true });
      },
    });
  return (
    <form
      className="panel"
      aria-label={`Put ${page.line.tag} right`}
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      <div className="field-grid">
        {LINES.map(([name, words]) => (
          <FormText
            key={name}
            form={form}
            name={name}
            label={signOf(name) ? `${words} (${signOf(name)})` : words}
            maxLength={120}
          />
        ))}
        <FormText form={form} name="overhaul_every" label="Overhauled every (h)" />
        <FormText form={form} name="hours_per_week" label="Hours a week (h), where the meter does not tell" />
        {choicesOf(page).map((one) => (
          <FormSelect key={one.name} form={form} {...one} />
        ))}
      </div>
      <SheetField form={form} now={page.line.sheet} />
      <label className="tick">
        <input type="checkbox" checked={wet} onChange={() => setWet(!wet)} /> A wet or condensing place
      </label>
      <ProblemNote error={save.error} onConfirm={save.confirm} />
      <Button type="submit" disabled={save.isPending}>
        Save
      </Button>{' '}
      <Button variant="outline-secondary" onClick={onHide}>
        Leave it as it is
      </Button>
    </form>
  );
}

/** The sheet it works to, found among all. */
function SheetField({ form, now }: { form: DraftForm; now: string }) {
  const [sheet, put] = useDraftField(form, 'sheet');
  const [title, setTitle] = useState(now);
  return (
    <Finder
      label={`Spec sheet: ${title}`}
      find="Find another by title, maker or model"
      what="the sheets"
      ask={(sought) => foundSheetsQuery(sought)}
      keyOf={(s) => s.slug}
      value={sheet}
      onChoose={(slug, s) => {
        put(slug);
        setTitle(s.title);
      }}
    >
      {(s) => (
        <>
          {s.title} <small>revision {s.revision}</small>
        </>
      )}
    </Finder>
  );
}

/** What is chosen from a list. */
function choicesOf({ entered }: PumpDetail) {
  return [
    {
      name: 'material',
      label: 'Material, as the clearance table names it',
      options: entered.materials.map((m) => [m, m] as const),
    },
    {
      name: 'medium',
      label: 'Kind of liquid, for its elastomers',
      options: [
        ['', 'not in this list: ask the seal maker'] as const,
        ...entered.media.map((m) => [m.key, m.name] as const),
      ],
    },
  ];
}

function begin({ line, entered }: PumpDetail) {
  const { version, sheet, material, medium, build } = entered;
  const { liquid, viscosity, temperature, casing, density, start, hot, pressure, speed } = entered;
  const { hazards, overhaul_every, hours_per_week } = entered;
  const { tag, service, location, serial } = line;
  return {
    texts: {
      ...{ tag, service, location, serial, liquid, hazards, viscosity, temperature, casing, start, hot },
      ...{ density, pressure, speed, overhaul_every, hours_per_week, sheet, material, medium },
    },
    rest: { version, build },
  };
}
