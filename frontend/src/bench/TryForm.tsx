import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Job, type Setting } from '../api/client';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { useDraft, useUnit } from '../app/unit';
import { useChange } from './useJob';

/** Record a try: what was done, and what the check read, by feeler or by gauge. */
export function TryForm({ job, setting }: { job: Job; setting: Setting }) {
  const { unit } = useUnit();
  const { housing, gaskets } = setting;
  const [arc, setArc] = useDraft(housing && setting.way !== 'stay' && !setting.right ? housing.arc : '0');
  const [counts, setCounts] = useState<Record<number, number>>(() =>
    Object.fromEntries((gaskets?.next ?? []).map((p) => [p.um, p.count])),
  );
  const [goes, setGoes] = useDraft();
  const [stops, setStops] = useDraft();
  const [read, setRead] = useDraft();
  const [byGauge, setByGauge] = useState(false);
  const [chosen, setGauge] = useState<string | null>(null);
  const gauges = job.gauges.filter((g) => g.lengths);
  const fitting = gauges.filter((g) => !g.overdue && setting.feelers.includes(g.tag) !== byGauge);
  const gauge = chosen ?? fitting[0]?.tag ?? gauges[0]?.tag ?? '';
  const identity = useRef(newId());
  const record = useChange('tries', job.number);

  const closing = setting.way === 'close';
  const turned = (housing?.hand === 'right') === closing ? 'clockwise' : 'counterclockwise';

  function save(confirmed: boolean) {
    if (record.isPending) return;
    const stack = Object.entries(counts).flatMap(([um, n]) => Array.from({ length: n }, () => Number(um)));
    const way = closing ? 'close' : 'open';
    const check = byGauge ? { read, gauge, goes: '', stops: '' } : { goes, stops, read: '', gauge };
    record.mutate({ id: identity.current, arc, way, stack_um: gaskets ? stack : [], confirmed, ...check });
  }

  return (
    <form
      className="try-form"
      aria-label={`Try ${setting.tries.length + 1}`}
      onSubmit={(event) => {
        event.preventDefault();
        save(false);
      }}
    >
      {gaskets && (
        <StackCounts
          gaskets={gaskets}
          counts={counts}
          onChange={setCounts}
          unit={unit}
          number={setting.tries.length + 1}
        />
      )}
      <div className="try-check">
        {housing && <TextField short label={`Arc ${turned} (${unit})`} value={arc} onChange={setArc} />}
        {byGauge ? (
          <>
            <TextField short label={`Gap read (${unit})`} value={read} onChange={setRead} />
          </>
        ) : (
          <>
            <TextField short label={`Leaf that goes (${unit})`} value={goes} onChange={setGoes} />
            <TextField short label="Leaf that does not" value={stops} onChange={setStops} />
          </>
        )}
      </div>
      {!byGauge && (
        <Proof
          setting={setting}
          gauge={gauge}
          onUse={(go, stop) => {
            setGoes(go);
            setStops(stop);
          }}
        />
      )}
      <ProblemNote error={record.error} onConfirm={() => save(true)} />
      <div className="pad-row">
        <Button type="submit" size="lg" disabled={record.isPending}>
          Record try {setting.tries.length + 1}
        </Button>
        <select aria-label="Checked with" value={gauge} onChange={(e) => setGauge(e.target.value)}>
          {gauges.map((g) => (
            <option key={g.tag} value={g.tag}>
              {g.tag} {g.kind}
              {g.overdue ? ', out of date' : ''}
            </option>
          ))}
        </select>
        <button
          type="button"
          className="working-link"
          onClick={() => {
            setByGauge(!byGauge);
            setGauge(null);
          }}
        >
          {byGauge ? 'by feeler' : 'other gauge'}
        </button>
      </div>
    </form>
  );
}

interface ProofProps {
  setting: Setting;
  gauge: string;
  onUse: (go: string, stop: string) => void;
}

/** Which leaves of the set in hand prove the window: one pile must go, the other must not. */
function Proof({ setting, gauge, onUse }: ProofProps) {
  const proof = setting.proofs.find((p) => p.gauge === gauge);
  if (!proof) return null;
  const { go, stop } = proof;
  if (!go || !stop) {
    return (
      <p className="quiet proof">
        {gauge} makes no pile that {go ? 'must not go' : 'must go'} inside {setting.low} to {setting.high}:
        the check may have to be repeated with another gauge.
      </p>
    );
  }
  return (
    <p className="quiet proof">
      To prove it with {gauge}: <b>{go.leaves}</b> must go, <b>{stop.leaves}</b> must not (±&nbsp;
      {stop.expanded}).{' '}
      <button type="button" className="working-link" onClick={() => onUse(go.thickness, stop.thickness)}>
        fill these in
      </button>
    </p>
  );
}

interface CountsProps {
  gaskets: NonNullable<Setting['gaskets']>;
  counts: Record<number, number>;
  onChange: (counts: Record<number, number>) => void;
  unit: string;
  number: number;
}

/** How many of each thickness are under the head; more cannot be put in than shelf and pump have. */
function StackCounts({ gaskets, counts, onChange, unit, number }: CountsProps) {
  const fitted = new Map(gaskets.now.map((p) => [p.um, p.count]));
  return (
    <fieldset className="stack-counts">
      <legend>
        Under the head ({unit}, as compressed), try {number}
      </legend>
      {gaskets.box.map((line) => {
        const have = line.count + (fitted.get(line.um) ?? 0);
        const used = counts[line.um] ?? 0;
        const set = (n: number) => onChange({ ...counts, [line.um]: Math.min(Math.max(n, 0), have) });
        return (
          <div key={line.um} className="counter">
            <span>{line.text}</span>
            <button
              type="button"
              aria-label={`one less of ${line.text}`}
              disabled={used === 0}
              onClick={() => set(used - 1)}
            >
              −
            </button>
            <output aria-label={`${line.text} under the head`}>{used}</output>
            <button
              type="button"
              aria-label={`one more of ${line.text}`}
              disabled={used >= have}
              onClick={() => set(used + 1)}
            >
              +
            </button>
            <small>of {have}</small>
          </div>
        );
      })}
    </fieldset>
  );
}
