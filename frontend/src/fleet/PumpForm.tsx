import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { useNavigate } from 'react-router';
import { client, type PumpDetail } from '../api/client';
import { sheetsQuery } from '../api/queries';
import type { components } from '../api/schema';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { useDrafts, useUnit } from '../app/unit';
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
  const sheets = useQuery(sheetsQuery);
  const kinds: Record<string, string> = Object.fromEntries(LINES.map(([name, , kind]) => [name, kind]));
  const signOf = (name: string) => signs[kinds[name] ?? '']?.[unit] ?? '';
  const [begun] = useState(() => begin(page));
  const [texts, put] = useDrafts(begun.texts, signOf);
  const [rest, setRest] = useState(begun.rest);
  const save = usePumpChange(page.line.tag, (body: Given & Entered, at) =>
    client.PUT('/api/pumps/{tag}', { ...at, body }),
  );
  const given = { ...begun.texts, ...texts, ...rest } as Given;
  return (
    <form
      className="panel"
      aria-label={`Put ${page.line.tag} right`}
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate(given, {
          onSuccess: (saved) => {
            onHide();
            void navigate(`/fleet/${encodeURIComponent(saved.line.tag)}`, { replace: true });
          },
        });
      }}
    >
      <div className="field-grid">
        {LINES.map(([name, words]) => (
          <TextField
            key={name}
            label={signOf(name) ? `${words} (${signOf(name)})` : words}
            value={texts[name] ?? ''}
            maxLength={120}
            onChange={(text) => put(name, text)}
          />
        ))}
        <TextField
          label="Overhauled every (h)"
          value={texts['overhaul_every'] ?? ''}
          onChange={(text) => put('overhaul_every', text)}
        />
        <TextField
          label="Hours a week (h), where the meter does not tell"
          value={texts['hours_per_week'] ?? ''}
          onChange={(text) => put('hours_per_week', text)}
        />
        <label className="field">
          Spec sheet
          <select value={rest.sheet} onChange={(e) => setRest({ ...rest, sheet: e.target.value })}>
            {sheets.data?.map((s) => (
              <option key={s.slug} value={s.slug}>
                {s.title}
              </option>
            ))}
          </select>
        </label>
        <label className="field">
          Material, as the clearance table names it
          <select value={rest.material} onChange={(e) => setRest({ ...rest, material: e.target.value })}>
            {page.entered.materials.map((m) => (
              <option key={m}>{m}</option>
            ))}
          </select>
        </label>
        <label className="field">
          Kind of liquid, for its elastomers
          <select value={rest.medium} onChange={(e) => setRest({ ...rest, medium: e.target.value })}>
            <option value="">not in this list: ask the seal maker</option>
            {page.entered.media.map((m) => (
              <option key={m.key} value={m.key}>
                {m.name}
              </option>
            ))}
          </select>
        </label>
      </div>
      <label className="tick">
        <input type="checkbox" checked={rest.wet} onChange={() => setRest({ ...rest, wet: !rest.wet })} /> A
        wet or condensing place
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

function begin({ line, entered, wet }: PumpDetail) {
  const { version, sheet, material, medium, build } = entered;
  const { liquid, viscosity, temperature, casing, density, start, hot, pressure, speed } = entered;
  const { hazards, overhaul_every, hours_per_week } = entered;
  const { tag, service, location, serial } = line;
  return {
    texts: {
      ...{ tag, service, location, serial, liquid, hazards, viscosity, temperature, casing, start, hot },
      ...{ density, pressure, speed, overhaul_every, hours_per_week },
    } as Record<string, string>,
    rest: { version, sheet, material, medium, build, wet },
  };
}
