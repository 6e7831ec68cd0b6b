import { useCallback, useEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { ApiError, type Feature, type Gauge, type Job } from '../../api/client';
import { useKeys } from '../../app/keys';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { useDraft, useUnit } from '../../app/unit';
import { WorkingLink } from '../../app/WorkingLink';
import { useSign } from '../../app/works';
import { StationPlan } from '../../drawing/StationPlan';
import { LookForm, LookPanel } from './LookPanel';
import { Outcome } from './Outcome';
import { PasteSet } from './PasteSet';
import { Photos } from '../job/Photos';
import { ReadingList, Strike } from './ReadingList';
import { useHow, usePull } from '../job/useJob';
import { newEntry, useReadings, type Entry as Taken } from './useReadings';

interface Props {
  job: Job;
  feature: Feature;
  phase: 'found' | 'left';
  /** Goes on to the next part, by the technician's own act; absent where there is none. */
  onNext?: (() => void) | undefined;
}

/** The reading pad: number, Enter, next station; the result and its verdict below as they stand. */
export function Pad({ job, feature, phase, onNext }: Props) {
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
      <Taking job={job} feature={feature} phase={phase} onNext={onNext} />
      <Outcome job={job} feature={feature} phase={phase} />
    </section>
  );
}

function Taking({ job, feature, phase, onNext }: Props) {
  if (feature.kind === 'check') {
    return (
      <>
        <LookForm job={job} feature={feature} phase={phase} />
        {onNext && (phase === 'left' ? feature.look_left : feature.look) && (
          <p className="taken-all">
            Looked at.{' '}
            <Button variant="outline-primary" autoFocus onClick={onNext}>
              Next part
            </Button>
          </p>
        )}
        <Photos job={job} photos={feature.photos} of={{ feature: feature.key }} what={feature.name} />
      </>
    );
  }
  if (!feature.stations.length) return <p>Worked out from its two parts. Measure them and it is here.</p>;
  return <Entry job={job} feature={feature} phase={phase} onNext={onNext} />;
}

/** An Enter so soon after a number is that of a gauge that ends its line with two. */
const STRAY_ENTER_MS = 700;

function Entry({ job, feature, phase, onNext }: Props) {
  const { unit } = useUnit();
  const readings = feature.readings.filter((r) => r.phase === phase);
  const counted = readings.filter((r) => !r.struck_reason);
  const { save, failed, sent, forget } = useReadings(job, feature.key, phase);
  // On the way until the sheet shows it: between its answer and the sheet there is a moment with neither.
  const waiting = sent.filter((e) => !feature.readings.some((r) => r.id === e.id));
  const lastEntered = useRef(-Infinity);
  const clock = useCallback(() => performance.now(), []);
  const how = useHow();
  const taken = new Set([...counted, ...waiting].map((r) => r.station));
  const [station, setStation] = useState(
    () => feature.stations.find((s) => !taken.has(s.key))?.key ?? feature.stations[0]?.key ?? '',
  );
  const [draft, setDraft] = useDraft();
  const [goes, setGoes] = useState<string | null>(null);
  const degrees = useSign('temperature');
  const [partAt, setPartAt] = useDraft('', degrees);
  const [material, setMaterial] = useState('');
  const [warm, setWarm] = useState(false);
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
  const every = feature.stations.length > 0 && feature.stations.every((s) => taken.has(s.key));

  useEffect(() => {
    if (!off) input.current?.focus();
  }, [station, goes, feature.key, off]);

  function enter(typed: string, as: Taken['taken'] = 'typed') {
    const text = typed.trim();
    if (off) return;
    if (!text) {
      // All stations are taken and on the sheet: Enter goes on. Any other Enter too many is no reading.
      const stray = clock() - lastEntered.current < STRAY_ENTER_MS;
      if (every && waiting.length === 0 && failed.length === 0 && goes === null && !stray) onNext?.();
      return;
    }
    lastEntered.current = clock();
    if (leaves && goes === null && as === 'typed') {
      setGoes(text);
      setDraft('');
      return;
    }
    const pair = goes === null ? { typed: text, stops: '' } : { typed: goes, stops: text };
    const entry = newEntry({
      ...pair,
      station,
      gauge,
      taken: as,
      part: warm ? partAt : '',
      material: warm ? material : '',
      reason: '',
      how: how(),
    });
    // A wrong number typed anew at its station is put right; what was not taken for other reasons stays until it is said.
    const mended = failed.filter((f) => f.entry.station === station && isWrong(f.error));
    mended.forEach((f) => forget(f.entry.id));
    if (as === 'typed') {
      setDraft('');
      setGoes(null);
    }
    const next = nextStation();
    // A pulled reading may come when another station is in hand already: that one stays.
    if (!taken.has(station) && next) setStation((now) => (now === station ? next : now));
    void save(entry);
  }

  /** The station after the one in hand that is free: one whose number waits to be asked about is not. */
  function nextStation(): string | undefined {
    const held = new Set([...taken, ...failed.map((f) => f.entry.station)]);
    const here = feature.stations.findIndex((s) => s.key === station);
    const inOrder = [...feature.stations.slice(here + 1), ...feature.stations.slice(0, Math.max(here, 0))];
    return inOrder.find((s) => !held.has(s.key))?.key;
  }

  /** Back to the station of a number that was not taken, to type it anew: only by the technician's own act. */
  function typeAnew(entry: Taken) {
    forget(entry.id);
    setStation(entry.station);
    setDraft('');
    setGoes(null);
    input.current?.focus();
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
              onChange={(event) => setDraft(event.target.value)}
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
          {last?.understood && (
            <p className="notice" role="status">
              {last.typed} was read as {last.understood}.
            </p>
          )}
          {every && !off && (
            <p className="taken-all">
              {feature.stations.length > 1 ? `All ${feature.stations.length} stations are` : 'It is'} taken. A
              number now is a repeat here.{' '}
              {onNext && (
                <Button variant="outline-primary" onClick={onNext}>
                  Next part (Enter)
                </Button>
              )}
            </p>
          )}
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
          <button type="button" className="tool" aria-pressed={warm} onClick={() => setWarm(!warm)}>
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
      {warm && (
        <div className="try-check">
          <TextField short label={`Part is at (${degrees})`} value={partAt} onChange={setPartAt} />
          <PartMaterial feature={feature} job={job} material={material} onChange={setMaterial} />
        </div>
      )}
      {arrived && <p className="notice">{arrived}</p>}
      <ProblemNote error={pull.error} />
      {failed.map(({ entry, error }) => (
        <div key={entry.id}>
          <p className="not-saved">
            <b>
              {feature.stations.find((s) => s.key === entry.station)?.label}: {entry.typed}
              {entry.stops && ` goes, ${entry.stops} does not`}
            </b>{' '}
            is not saved.{' '}
            {isWrong(error) ? (
              <button type="button" className="tool" onClick={() => typeAnew(entry)}>
                Type it anew
              </button>
            ) : (
              <button type="button" className="tool" onClick={() => void save(entry)}>
                Save it again
              </button>
            )}{' '}
            <button type="button" className="tool" onClick={() => forget(entry.id)}>
              Give it up
            </button>
          </p>
          <ProblemNote
            error={error}
            onSuggestion={(typed) => void save({ ...entry, typed })}
            onConfirm={(reason) => {
              void save({ ...entry, reason: reason ?? '', how: { ...entry.how, meant: true } });
            }}
          />
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
  return error instanceof ApiError && ['field', 'unlikely', 'ambiguous'].includes(error.details.code);
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
  material: string;
  onChange: (material: string) => void;
}

/** What a warm part is made of, where the sheet does not say. */
function PartMaterial({ feature, job, material, onChange }: PartProps) {
  if (feature.expansion) return <p className="quiet">Its material grows {feature.expansion}.</p>;
  return (
    <label className="field">
      It is made of
      <select value={material} onChange={(event) => onChange(event.target.value)}>
        <option value="">choose</option>
        {job.materials.map((m) => (
          <option key={m}>{m}</option>
        ))}
      </select>
    </label>
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
