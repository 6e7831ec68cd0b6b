import { useEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Feature, type Job } from '../api/client';
import { useKeys } from '../app/keys';
import { ProblemNote } from '../app/ProblemNote';
import { useDraft, useUnit } from '../app/unit';
import { StationPlan } from '../drawing/StationPlan';
import { Outcome } from './Outcome';
import { ReadingList, Strike } from './ReadingList';
import { useChange } from './useJob';

interface Props {
  job: Job;
  feature: Feature;
  phase: 'found' | 'left';
  /** All stations have a reading. */
  onDone?: () => void;
}

/** The reading pad: number, Enter, next station; the result and its verdict below as they stand. */
export function Pad({ job, feature, phase, onDone }: Props) {
  const measurable = feature.stations.length > 0;
  return (
    <section className="pad" aria-label="Reading pad">
      <h2>
        <span className="number-ring">{feature.number}</span>
        {feature.name}
        {phase === 'left' ? ', as left' : ''}
      </h2>
      <p className="quiet">
        new {feature.new_text} · {feature.limit_text} {job.unit}
        {feature.page ? ` · sheet page ${feature.page}` : ''}
      </p>
      {measurable ? (
        <Entry job={job} feature={feature} phase={phase} onDone={onDone} />
      ) : (
        <p>Worked out from its two parts. Measure them and it is here.</p>
      )}
      <Outcome feature={feature} result={phase === 'left' ? feature.left : feature.found} />
    </section>
  );
}

function Entry({ job, feature, phase, onDone }: Props) {
  const { unit } = useUnit();
  const readings = feature.readings.filter((r) => r.phase === phase);
  const counted = readings.filter((r) => !r.struck_reason);
  const [station, setStation] = useState(
    () =>
      feature.stations.find((s) => !counted.some((r) => r.station === s.key))?.key ??
      feature.stations[0]?.key ??
      '',
  );
  const [draft, setDraft] = useDraft();
  const identity = useRef(newId());
  const latest = useRef(draft);
  useEffect(() => {
    latest.current = draft;
  });
  const input = useRef<HTMLInputElement>(null);
  const [gauge, setGauge] = useGauge(job, feature);
  const [striking, setStriking] = useState<string | null>(null);
  const record = useChange('readings', job.number);
  const here = feature.stations.find((s) => s.key === station);

  useEffect(() => {
    if (!job.signed) input.current?.focus();
  }, [station, feature.key, job.signed]);

  function save(typed: string, confirmed: boolean) {
    if (record.isPending || job.signed) return;
    record.mutate(
      { id: identity.current, feature: feature.key, station, phase, typed, gauge, confirmed },
      {
        onSuccess: (after) => {
          identity.current = newId();
          // The next number may have been begun while this one was on its way.
          if (latest.current === draft) setDraft('');
          const mine = after.features.find((f) => f.key === feature.key);
          const done = mine?.readings.filter((r) => r.phase === phase && !r.struck_reason) ?? [];
          const next = feature.stations.find((s) => !done.some((r) => r.station === s.key));
          if (next) setStation(next.key);
          else if (done.length === feature.stations.length) onDone?.();
        },
      },
    );
  }

  const last = counted.at(-1);
  const gauges = job.gauges;
  const stationAt = (by: number) => {
    const index = feature.stations.findIndex((s) => s.key === station);
    setStation(
      feature.stations[(index + by + feature.stations.length) % feature.stations.length]?.key ?? station,
    );
  };
  useKeys(
    job.signed
      ? []
      : [
          { key: 'ArrowLeft', show: '←', label: 'station before', run: () => stationAt(-1) },
          { key: 'ArrowRight', show: '→', label: 'next station', run: () => stationAt(1) },
          {
            key: 'g',
            label: 'other gauge',
            run: () => {
              const index = gauges.findIndex((g) => g.tag === gauge);
              setGauge(gauges[(index + 1) % gauges.length]?.tag ?? '');
            },
          },
          ...(last ? [{ key: 'x', label: 'strike out', run: () => setStriking(last.id) }] : []),
        ],
  );
  const inHand = gauges.find((g) => g.tag === gauge);
  return (
    <>
      <div className="entry">
        <StationPlan feature={feature} readings={readings} station={station} onStation={setStation} />
        <form
          onSubmit={(event) => {
            event.preventDefault();
            save(draft, false);
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
              aria-label={`Reading, ${here?.label ?? ''}`}
              value={draft}
              disabled={job.signed !== null}
              onChange={(event) => {
                setDraft(event.target.value);
                if (record.error) record.reset();
              }}
            />
            <span className="unit">{unit}</span>
          </div>
          <div className="pad-row">
            <span className="here">
              {here?.label}
              {counted.some((r) => r.station === station) ? ' · repeat' : ''}
            </span>
            <Button type="submit" disabled={record.isPending || job.signed !== null}>
              Save reading
            </Button>
          </div>
          <label className="gauge-pick">
            Gauge in hand
            <select
              value={gauge}
              disabled={job.signed !== null}
              onChange={(event) => setGauge(event.target.value)}
            >
              {gauges.map((g) => (
                <option key={g.tag} value={g.tag}>
                  {g.tag} {g.kind} {g.range}
                  {g.overdue ? ', out of date' : ''}
                </option>
              ))}
            </select>
          </label>
          {inHand && (
            <p className="quiet gauge-note">
              U {inHand.expanded} (k {inHand.k}), due {inHand.due}
            </p>
          )}
          {inHand && feature.out_of_range.includes(inHand.tag) && (
            <p className="warning">This size is outside the range of {inHand.tag}.</p>
          )}
          {inHand?.overdue && (
            <p className="warning">
              {inHand.tag} was due for calibration on {inHand.due}. It measures, but a lead has to sign.
            </p>
          )}
        </form>
      </div>
      <ProblemNote
        error={record.error}
        onSuggestion={(typed) => save(typed, false)}
        onConfirm={() => save(draft, true)}
      />
      <ReadingList
        readings={readings}
        stations={feature.stations}
        onStrike={job.signed ? null : setStriking}
      />
      {striking && <Strike job={job} reading={striking} onHide={() => setStriking(null)} />}
    </>
  );
}

/** The gauge in hand: the one last used on this feature, else the one the bench offers, else the first there is. */
function useGauge(job: Job, feature: Feature): [string, (tag: string) => void] {
  return useState(() => feature.readings.at(-1)?.gauge || feature.gauge || (job.gauges[0]?.tag ?? ''));
}
