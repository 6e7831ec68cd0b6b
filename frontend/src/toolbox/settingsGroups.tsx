import { useQuery } from '@tanstack/react-query';
import type { Settings } from '../api/client';
import type { components } from '../api/schema';
import { zonesQuery } from '../api/queries';
import { TextField } from '../app/TextField';
import { Choice, type Choices } from '../app/Choice';

const UNITS: Choices = [
  ['mm', 'millimetres'],
  ['in', 'inches'],
  ['thou', 'thousandths of an inch'],
];
const DAYS: Choices = [
  ['day-month', '5 Nov 2026'],
  ['month-day', 'Nov 5, 2026'],
  ['iso', '2026-11-05'],
  ['dotted', '05.11.2026'],
];
const PAPERS: Choices = [
  ['A4', 'A4'],
  ['Letter', 'Letter'],
];
const SCHOOLS: Choices = [
  ['guarded', 'counts against the part'],
  ['plain', 'does not count'],
];
const MARKS: Choices = [
  ['point', 'a point: 37.975 is near 38; 1,750 is asked about'],
  ['comma', 'a comma: 37,975 is near 38; 1.750 is asked about'],
];
const SIDES: Choices = [
  ['1200', '1200 pixels'],
  ['1600', '1600 pixels'],
  ['2400', '2400 pixels'],
];

/** What the form of settings holds, each as it is sent. */
export type Typed = Pick<
  Settings,
  Extract<keyof Settings, keyof components['schemas']['KeepSettingsRequest'] | 'decimal_mark'>
>;

interface Props {
  typed: Typed;
  put: (name: keyof Typed) => (text: string) => void;
}

export function OnReports({ typed, put }: Props) {
  return (
    <>
      <TextField label="What this works is called" value={typed.name} maxLength={80} onChange={put('name')} />
      <label className="field">
        Address, in lines
        <textarea
          rows={3}
          maxLength={240}
          value={typed.address}
          onChange={(event) => put('address')(event.target.value)}
        />
      </label>
      <Choice label="Paper" value={typed.paper} choices={PAPERS} onChange={put('paper')} />
    </>
  );
}

export function Written({ typed, put }: Props) {
  const zones = useQuery(zonesQuery);
  const zone = (name: string) => [name, name.replaceAll('_', ' ')] as const;
  return (
    <>
      <Choice
        label="Lengths are shown in, to begin with"
        value={typed.lengths}
        choices={UNITS}
        onChange={put('lengths')}
      />
      <Choice label="Days" value={typed.date_form} choices={DAYS} onChange={put('date_form')} />
      <Choice
        label="Time zone"
        value={typed.time_zone}
        choices={(zones.data ?? [typed.time_zone]).map(zone)}
        onChange={put('time_zone')}
      />
      <Choice
        label="Decimal mark"
        value={typed.decimal_mark}
        choices={MARKS}
        onChange={put('decimal_mark')}
      />
    </>
  );
}

export function PartsAndPrices({ typed, put }: Props) {
  return (
    <>
      <Choice
        label="The doubt of a gauge near a limit, unless the sheet says otherwise"
        value={typed.school}
        choices={SCHOOLS}
        onChange={put('school')}
      />
      <TextField
        short
        label="Ask when a new part is farther from its one new size than (% of its wear allowance)"
        value={typed.new_share}
        onChange={put('new_share')}
      />
      <TextField
        label="Currency, where a sheet states none"
        value={typed.currency}
        maxLength={12}
        onChange={put('currency')}
      />
      <p className="quiet">
        The doubt and the currency go into a sheet when it is added. A sheet that is there stays as it is.
      </p>
    </>
  );
}

export function Keeping({ typed, put }: Props) {
  return (
    <>
      <Choice
        label="Photographs, longer side"
        value={typed.photo_side}
        choices={SIDES}
        onChange={put('photo_side')}
      />
      <TextField
        short
        keyboard="numeric"
        label="Photographs of abandoned jobs, days; empty: without end"
        value={typed.abandoned_days}
        onChange={put('abandoned_days')}
      />
      <TextField
        short
        keyboard="numeric"
        label="A browser nobody uses stays signed in, days"
        value={typed.idle_days}
        onChange={put('idle_days')}
      />
      <TextField
        short
        keyboard="numeric"
        label="From one backup to the next, hours"
        value={typed.backup_hours}
        onChange={put('backup_hours')}
      />
      <p className="quiet">A signed record, its photographs and the log are never deleted.</p>
    </>
  );
}
