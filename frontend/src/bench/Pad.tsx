import { useEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { ApiError, type Feature, type Gauge, type Job } from '../api/client';
import { useKeys } from '../app/keys';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { useDraft, useUnit } from '../app/unit';
import { WorkingLink } from '../app/WorkingLink';
import { StationPlan } from '../drawing/StationPlan';
import { LookForm, LookPanel } from './LookPanel';
import { Outcome } from './Outcome';
import { PasteSet } from './PasteSet';
import { Photos } from './Photos';
import { ReadingList, Strike } from './ReadingList';
import { usePull } from './useJob';
import { newEntry, useReadings, type Entry as Taken } from './useReadings';

interface Props {
  job: Job;
  feature: Feature;
  phase: 'found' | 'left';
  /** All stations have a reading, or the part was looked at. */
  onDone?: () => void;
}

/** The reading pad: number, Enter, next station; the result and its verdict below as they stand. */
export function Pad({ job, feature, phase, onDone }: Props) {
  const size = feature.new_text
    ? `new ${feature.new_text} ${job.unit} · ${feature.limit_text}${feature.page ? ` · sheet page ${feature.page}` : ''}`
    : feature.kind === 'check'
      ? 'looked at, not measured'
      : 'the sheet gives no size';
  return (
    <section className="pad" aria-label="Reading pad">
      <h2>
        <span className="number-ring">{feature.number}</span>
        {feature.name}
        {phase === 'left' && !feature.press ? ', as left' : ''}
      </h2>
      <p className="quiet">{size}</p>
      <Taking job={job} feature={feature} phase={phase} onDone={onDone} />
      <Outcome job={job} feature={feature} phase={phase} />
    </section>
  );
}

function Taking({ job, feature, phase, onDone }: Props) {
  if (feature.kind === 'check') {
    return (
      <>
        <LookForm job={job} feature={feature} phase={phase} onSaved={onDone} />
        <Photos job={job} photos={feature.photos} of={{ feature: feature.key }} what={feature.name} />
      </>
    );
  }
  if (!feature.stations.length) return <p>Worked out from its two parts. Measure them and it is here.</p>;
  return <Entry job={job} feature={feature} phase={phase} onDone={onDone} />;
}

function Entry({ job, feature, phase, onDone }: Props) {
  const { unit } = useUnit();
  const readings = feature.readings.filter((r) => r.phase === phase);
  const counted = readings.filter((r) => !r.struck_reason);
  const { save, failed, sent, forget } = useReadings(job, feature.key, phase);
  // On the way until the sheet shows it: between its answer and the sheet there is a moment with neither.
  const waiting = sent.filter((e) => !feature.readings.some((r) => r.id === e.id));
  const flying = useRef(0);
  const shown = useRef(true);
  useEffect(() => {
    shown.current = true;
    return () => {
      shown.current = false;
    };
  }, []);
  const taken = new Set([...counted, ...waiting].map((r) => r.station));
  const [station, setStation] = useState(
    () => feature.stations.find((s) => !taken.has(s.key))?.key ?? feature.stations[0]?.key ?? '',
  );
  const [draft, setDraft] = useDraft();
  const [goes, setGoes] = useState<string | null>(null);
  const [restored, setRestored] = useState<Taken | null>(null);
  const [part, setPart] = useState<{ at: string; material: string } | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const gauges = inOrder(job.gauges, feature);
  const [gauge, setGauge] = useGauge(job, feature);
  const inHand = gauges.find((g) => g.tag === gauge);
  const leaves = inHand?.kind === 'feeler set';
  const [striking, setStriking] = useState<string | null>(null);
  const [looking, setLooking] = useState(false);
  const [pasting, setPasting] = useState(false);
  const pull = usePull(job.number);
  const [arrived, setArrived] = useState('');
  const here = feature.stations.find((s) => s.key === station);
  const off = job.signed !== null;

  useEffect(() => {
    if (!off) input.current?.focus();
  }, [station, goes, feature.key, off]);
  useEffect(() => {
    // Typing replaces what was put back: a gauge that types must not add its digits to it.
    if (restored) input.current?.select();
  }, [restored]);

  function enter(typed: string, how: Taken['taken'] = 'typed') {
    const text = typed.trim();
    // An Enter too many, after a reading has gone on its way, is no reading.
    if (off || (!text && (waiting.length > 0 || goes !== null))) return;
    if (leaves && goes === null && how === 'typed') {
      setGoes(text);
      setDraft('');
      return;
    }
    const pair = goes === null ? { typed: text, stops: '' } : { typed: goes, stops: text };
    const entry = newEntry({
      ...pair,
      station,
      gauge,
      taken: how,
      part: part?.at ?? '',
      material: part?.material ?? '',
    });
    // The same reading sent again keeps its identity: the server may have it, and only its answer was lost.
    const same =
      restored?.station === station && restored.typed === entry.typed && restored.stops === entry.stops;
    send(same ? { ...entry, id: restored.id } : entry);
  }

  function send(entry: Taken, confirmed = false) {
    const first = !taken.has(entry.station);
    // A wrong number put right is done with; what the server did not take for other reasons stays until it is said.
    const mended = failed.filter((f) => f.entry.station === entry.station && isWrong(f.error));
    mended.forEach((f) => forget(f.entry.id));
    setRestored(null);
    setDraft('');
    setGoes(null);
    const next = feature.stations.find((s) => s.key !== entry.station && !taken.has(s.key));
    if (first && next) setStation(next.key);
    flying.current += 1;
    void save(entry, confirmed).then((after) => {
      flying.current -= 1;
      if (!after) {
        putBack(entry);
        return;
      }
      const mine = after.features.find((f) => f.key === feature.key);
      const done = mine?.readings.filter((r) => r.phase === phase && !r.struck_reason) ?? [];
      const every = feature.stations.every((s) => done.some((r) => r.station === s.key));
      // Somebody who chose another part in the meantime is not taken away from it.
      if (shown.current && first && every && done.length >= feature.stations.length) onDone?.();
    });
  }

  /** What could not be saved goes back into the field it came from, unless other numbers are there or on their way. */
  function putBack(entry: Taken) {
    if (input.current?.value || flying.current > 0) return;
    setStation(entry.station);
    setDraft(entry.stops || entry.typed);
    setGoes(entry.stops ? entry.typed : null);
    setRestored(entry);
  }

  const pullHere = () => {
    setArrived('');
    pull.mutate(
      { feature: feature.key, station, gauge },
      {
        onSuccess: (sent) => {
          setArrived(sent.note);
          enter(sent.typed, 'receiver');
        },
      },
    );
  };
  const stationAt = (by: number) => {
    const index = feature.stations.findIndex((s) => s.key === station);
    setStation(
      feature.stations[(index + by + feature.stations.length) % feature.stations.length]?.key ?? station,
    );
  };
  const last = counted.at(-1);
  useKeys(
    off
      ? []
      : [
          { key: 'ArrowLeft', label: '', run: () => stationAt(-1) },
          { key: 'ArrowRight', show: '← →', label: 'station', run: () => stationAt(1) },
          { key: 'p', label: 'pull', run: pullHere },
          {
            key: 'g',
            label: 'other gauge',
            run: () => {
              const index = gauges.findIndex((g) => g.tag === gauge);
              setGauge(gauges[(index + 1) % gauges.length]?.tag ?? '');
            },
          },
          // In Build the same letter marks a step done.
          ...(feature.damages.length && phase === 'found'
            ? [{ key: 'd', label: 'damage', run: () => setLooking(true) }]
            : []),
          ...(last ? [{ key: 'x', label: 'strike out', run: () => setStriking(last.id) }] : []),
        ],
  );
  const saysNext = leaves ? (goes === null ? 'leaf that goes' : `${goes} goes; leaf that does not`) : '';
  return (
    <>
      <div className="entry">
        <StationPlan feature={feature} readings={readings} station={station} onStation={setStation} />
        <form
          onSubmit={(event) => {
            event.preventDefault();
            enter(draft);
          }}
        >
          <div className="big-field">
            <input
              ref={input}
              type="text"
              data-pad="1"
              inputMode="decimal"
              autoComplete="off"
              maxLength={40}
              aria-label={`Reading, ${here?.label ?? ''}${saysNext ? `, ${saysNext}` : ''}`}
              value={draft}
              disabled={off}
              onChange={(event) => {
                setDraft(event.target.value);
                setRestored(null);
              }}
            />
            <span className="unit">{unit}</span>
          </div>
          <div className="pad-row">
            <span className="here">
              {saysNext || here?.label}
              {!saysNext && counted.some((r) => r.station === station) ? ' · repeat' : ''}
              {waiting.length > 0 && <small> · {waiting.length} on the way</small>}
            </span>
            <Button type="submit" disabled={off}>
              {leaves && goes === null ? 'It goes' : 'Save reading'}
            </Button>
          </div>
          <label className="gauge-pick">
            Gauge in hand
            <select value={gauge} disabled={off} onChange={(event) => setGauge(event.target.value)}>
              {gauges.map((g) => (
                <option key={g.tag} value={g.tag}>
                  {g.tag} {g.kind} {g.range}
                  {feature.fits.some((f) => f.tag === g.tag) ? '' : ', not made for this'}
                  {g.overdue ? ', out of date' : ''}
                </option>
              ))}
            </select>
          </label>
          {inHand && <GaugeNote feature={feature} gauge={inHand} />}
        </form>
      </div>
      {off ? (
        <ReadingList readings={readings} stations={feature.stations} onStrike={null} />
      ) : (
        <div className="tools">
          <button type="button" className="tool" disabled={pull.isPending} onClick={pullHere}>
            {pull.isPending ? 'Asking …' : 'Pull'}
          </button>
          {feature.stations.length > 1 && (
            <button type="button" className="tool" onClick={() => setPasting(true)}>
              Paste
            </button>
          )}
          <button
            type="button"
            className="tool"
            aria-pressed={part !== null}
            onClick={() => setPart(part ? null : { at: '', material: '' })}
          >
            Warm part
          </button>
          {feature.damages.length > 0 && (
            <button type="button" className="tool" onClick={() => setLooking(true)}>
              {lookWords(feature, phase)}
            </button>
          )}
          <Photos job={job} photos={feature.photos} of={{ feature: feature.key }} what={feature.name} />
          <ReadingList readings={readings} stations={feature.stations} onStrike={setStriking} />
        </div>
      )}
      {part && <PartTemperature feature={feature} job={job} part={part} onChange={setPart} />}
      {arrived && <p className="surprise">{arrived}</p>}
      <ProblemNote error={pull.error} />
      {failed.map(({ entry, error }) => (
        <div key={entry.id}>
          <ProblemNote
            error={error}
            onSuggestion={(typed) => send({ ...entry, typed })}
            onConfirm={() => send(entry, true)}
          />
          {restored?.id !== entry.id && (
            <p className="not-saved">
              <b>
                {feature.stations.find((s) => s.key === entry.station)?.label}: {entry.typed}
                {entry.stops && ` goes, ${entry.stops} does not`}
              </b>{' '}
              is not saved.{' '}
              <button type="button" className="tool" onClick={() => send(entry)}>
                Save it again
              </button>{' '}
              <button type="button" className="tool" onClick={() => forget(entry.id)}>
                Give it up
              </button>
            </p>
          )}
        </div>
      ))}
      {striking && <Strike job={job} reading={striking} onHide={() => setStriking(null)} />}
      {looking && <LookPanel job={job} feature={feature} phase={phase} onHide={() => setLooking(false)} />}
      {pasting && (
        <PasteSet job={job} feature={feature} phase={phase} gauge={gauge} onHide={() => setPasting(false)} />
      )}
    </>
  );
}

/** The number itself is wrong, or hardly possible: typing another puts it right. */
function isWrong(error: Error): boolean {
  return error instanceof ApiError && ['field', 'unlikely'].includes(error.details.code);
}

function lookWords(feature: Feature, phase: 'found' | 'left'): string {
  const look = phase === 'left' ? feature.look_left : feature.look;
  return look ? `Seen: ${look.words}` : 'Damage?';
}

/** Whether the gauge in hand can decide this at all, said before it is used. */
function GaugeNote({ feature, gauge }: { feature: Feature; gauge: Gauge }) {
  const fit = feature.fits.find((f) => f.tag === gauge.tag);
  return (
    <>
      {fit ? (
        <p className={fit.decides ? 'quiet gauge-note' : 'warning gauge-note'}>
          {fit.sentence} {fit.working && <WorkingLink working={fit.working} />}
        </p>
      ) : (
        <p className="warning gauge-note">
          A {gauge.kind} is not made for this.{' '}
          {feature.gauge ? `${feature.gauge} is.` : 'Nor is any gauge of the cabinet.'}
        </p>
      )}
      {gauge.overdue && (
        <p className="warning gauge-note">
          {gauge.tag} was due for calibration on {gauge.due}. It measures, but a lead has to sign.
        </p>
      )}
    </>
  );
}

interface PartProps {
  feature: Feature;
  job: Job;
  part: { at: string; material: string };
  onChange: (part: { at: string; material: string }) => void;
}

/** Temperature of a warm part, and what it is made of where the sheet does not say. */
function PartTemperature({ feature, job, part, onChange }: PartProps) {
  return (
    <div className="try-check">
      <TextField
        short
        label="Part is at (°C, or with F)"
        value={part.at}
        onChange={(at) => onChange({ ...part, at })}
      />
      {feature.expansion ? (
        <p className="quiet">Its material grows {feature.expansion}.</p>
      ) : (
        <label className="field">
          It is made of
          <select
            value={part.material}
            onChange={(event) => onChange({ ...part, material: event.target.value })}
          >
            <option value="">choose</option>
            {job.materials.map((m) => (
              <option key={m}>{m}</option>
            ))}
          </select>
        </label>
      )}
    </div>
  );
}

/** Gauges made for this first, then the others that measure lengths at all. */
function inOrder(gauges: Gauge[], feature: Feature): Gauge[] {
  const made = feature.fits.flatMap((f) => gauges.filter((g) => g.tag === f.tag));
  return [...made, ...gauges.filter((g) => g.lengths && !made.includes(g))];
}

/** The gauge in hand: the one last used on this feature, else the one the bench offers, else the first there is. */
function useGauge(job: Job, feature: Feature): [string, (tag: string) => void] {
  return useState(
    () => feature.readings.at(-1)?.gauge || feature.gauge || (inOrder(job.gauges, feature)[0]?.tag ?? ''),
  );
}
