import { useState } from 'react';
import { Button } from 'react-bootstrap';
import type { Feature, Job } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { useUnit } from '../../app/unit';
import { useHow } from '../job/useJob';
import { inOrder } from './padState';
import { newEntry, useReadings } from './useReadings';

/** Numbers from a paper bench sheet, typed in its order: Enter saves one and goes on to the next box. */
export function FromPaper({ job, features, onHide }: { job: Job; features: Feature[]; onHide: () => void }) {
  const { unit } = useUnit();
  // The gauge of the last part of a kind is likely that of the next: chosen once, and always shown.
  const [last, setLast] = useState<Record<string, string>>({});
  const [left, setLeft] = useState(0);
  const sizes = features.filter((f) => f.kind !== 'check' && f.stations.length > 0);
  return (
    <section className="stage from-paper" aria-label="From paper">
      <div className="sheet-head">
        <h2>From paper, in {unit === 'in' ? 'inches' : unit}</h2>
        <Button
          variant="outline-primary"
          onClick={() => {
            const typed = boxes().filter((box) => box.value.trim());
            typed[0]?.focus();
            setLeft(typed.length);
            if (!typed.length || left) onHide();
          }}
        >
          {left ? 'Leave them, back to the drawing' : 'Back to the drawing'}
        </Button>
      </div>
      {left > 0 && (
        <p className="notice" role="alert">
          {left} {left === 1 ? 'box holds a number that is' : 'boxes hold numbers that are'} not saved. Press
          Enter in each.
        </p>
      )}
      <p className="quiet">
        In the order of the blank bench sheet. Enter saves a number and goes on. With a feeler set write the
        leaf that goes and the one that does not, as 0.20/0.25. What was looked at is ticked at the drawing.
      </p>
      <table className="ruled">
        <thead>
          <tr>
            <th scope="col">Size</th>
            <th scope="col">Gauge</th>
            <th scope="col">Boxes</th>
          </tr>
        </thead>
        <tbody>
          {sizes.map((feature) => (
            <Row
              key={feature.key}
              job={job}
              feature={feature}
              kept={last[feature.kind] ?? ''}
              onGauge={(tag) => setLast({ ...last, [feature.kind]: tag })}
            />
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Boxes a number can be typed into, in the order of the paper. */
const boxes = () => [...document.querySelectorAll<HTMLInputElement>('input[data-paper]:not(:disabled)')];

interface RowProps {
  job: Job;
  feature: Feature;
  kept: string;
  onGauge: (tag: string) => void;
}

function Row({ job, feature, kept, onGauge }: RowProps) {
  const gauges = inOrder(job.gauges, feature);
  const [own, setOwn] = useState('');
  const gauge = own || (gauges.some((one) => one.tag === kept) ? kept : '');
  return (
    <tr>
      <th scope="row">
        {feature.number} {feature.name}
        <small>
          {feature.new_text && `new ${feature.new_text}`} {feature.limit_text}
        </small>
      </th>
      <td>
        <select
          aria-label={`Gauge for ${feature.name}`}
          value={gauge}
          onChange={(event) => {
            setOwn(event.target.value);
            onGauge(event.target.value);
          }}
        >
          <option value="">choose</option>
          {gauges.map((one) => (
            <option key={one.tag} value={one.tag}>
              {one.tag} {one.kind}
            </option>
          ))}
        </select>
      </td>
      <td className="boxes">
        <Boxes
          job={job}
          feature={feature}
          gauge={gauge}
          isFeeler={gauges.find((one) => one.tag === gauge)?.kind === 'feeler set'}
        />
      </td>
    </tr>
  );
}

interface BoxesProps {
  job: Job;
  feature: Feature;
  gauge: string;
  isFeeler: boolean;
}

/** The boxes of one size; what the server asks about stands below them until it is left out or typed anew. */
function Boxes({ job, feature, gauge, isFeeler }: BoxesProps) {
  const { save, failed, sent, forget } = useReadings(job, feature.key, 'found');
  const how = useHow();
  const taken = feature.readings.filter((one) => one.phase === 'found' && !one.struck_reason);
  const waiting = sent.filter((one) => !taken.some((there) => there.id === one.id));
  const enter = (station: string, text: string) => {
    const [typed = '', stops = ''] = isFeeler ? text.split('/').map((part) => part.trim()) : [text.trim()];
    const given = { station, typed, stops, part: '', material: '', gauge, reason: '', how: how() };
    void save(newEntry({ ...given, taken: 'paper' }));
  };
  const off = !gauge || job.signed !== null || job.abandoned !== null;
  return (
    <>
      {feature.stations.map((station) => (
        <Box
          key={station.key}
          label={`${feature.name}, ${station.label}`}
          short={station.label}
          there={taken
            .filter((one) => one.station === station.key)
            .map((one) => one.text)
            .join(', ')}
          waits={waiting.some((one) => one.station === station.key)}
          off={off}
          slash={isFeeler}
          onEnter={(text) => enter(station.key, text)}
        />
      ))}
      {failed.map(({ entry, error }) => (
        <div key={entry.id}>
          <ProblemNote error={error} />
          <button type="button" className="tool" onClick={() => forget(entry.id)}>
            Leave out “{entry.typed}”, and type it anew
          </button>
        </div>
      ))}
    </>
  );
}

interface BoxProps {
  label: string;
  short: string;
  /** What is on the sheet already. */
  there: string;
  waits: boolean;
  off: boolean;
  /** Two leaves are typed with a stroke between: a keypad of figures has none. */
  slash: boolean;
  onEnter: (text: string) => void;
}

/** One box of the paper. What is on the sheet stands in its place; a repeat is typed at the drawing. */
function Box({ label, short, there, waits, off, slash, onEnter }: BoxProps) {
  const [text, setText] = useState('');
  return (
    <label className="paper-box">
      <small>{short}</small>
      {there || waits ? (
        <output>{there || 'being saved'}</output>
      ) : (
        <input
          type="text"
          inputMode={slash ? 'text' : 'decimal'}
          autoComplete="off"
          data-paper
          aria-label={label}
          maxLength={40}
          disabled={off}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' || !text.trim()) return;
            event.preventDefault();
            const all = boxes();
            const next = all[all.indexOf(event.currentTarget) + 1];
            onEnter(text);
            setText('');
            next?.focus();
          }}
        />
      )}
    </label>
  );
}
