import { useState, type ReactNode } from 'react';
import type { Held, Job, Setting } from '../../api/client';
import { TextField } from '../../app/TextField';
import { AddGauge } from './AddGauge';
import { useDrafts, useUnit } from '../../app/unit';

/** A check as it is sent. */
interface Typed {
  goes: string;
  stops: string;
  read: string;
  gauge: string;
}

/** The checks of a try being typed: a feeler pair, or a reading with another gauge, for each gap. */
export interface Checks {
  typed: Typed[];
  single: boolean;
  byFeeler: boolean;
  toggle: () => void;
  gaugeOf: (index: number) => string;
  picker: (index: number) => ReactNode;
  isFeeler: (index: number) => boolean;
  text: (name: string) => string;
  put: (name: string, text: string) => void;
  fill: (index: number, goes: string, stops: string) => void;
}

// eslint-disable-next-line react-refresh/only-export-components -- a hook belongs beside its component
export function useChecks(job: Job, setting: Setting, feelerFirst = true): Checks {
  const asked = setting.gaps.filter((g) => !g.derived);
  const single = asked.length === 1;
  const [texts, put] = useDrafts();
  const [byFeeler, setByFeeler] = useState(feelerFirst);
  const [chosen, setChosen] = useState<Record<number, string>>({});
  const gauges = job.gauges.filter((g) => g.lengths);
  const isIndicator = (g: { kind: string }) => Number(g.kind === 'dial indicator');
  const fitting = gauges
    .filter((g) => !g.overdue && setting.feelers.includes(g.tag) === byFeeler)
    .sort((a, b) => isIndicator(b) - isIndicator(a));
  const gaugeOf = (index: number) => chosen[index] ?? fitting[0]?.tag ?? gauges[0]?.tag ?? '';
  const kindOf = (index: number) => asked[index]?.key.split(':')[0];
  // The gauge taken for one place of a gap is in hand for those after it, as far as nothing is typed there yet.
  const choose = (index: number, tag: string) =>
    setChosen((now) => {
      const after = [...asked.keys()].filter((i) => i > index && kindOf(i) === kindOf(index));
      const bare = after.filter((i) => !(i in now) && !text(`goes${i}`) && !text(`stops${i}`));
      return { ...now, ...Object.fromEntries([index, ...bare].map((i) => [i, tag])) };
    });
  // With one gap, feeler or gauge is chosen first; with several, the gauge of each says which it is.
  const isFeeler = (index: number) => (single ? byFeeler : setting.feelers.includes(gaugeOf(index)));
  const text = (name: string) => texts[name] ?? '';
  return {
    typed: asked.map((_, i) =>
      isFeeler(i)
        ? { goes: text(`goes${i}`), stops: text(`stops${i}`), read: '', gauge: gaugeOf(i) }
        : { goes: '', stops: '', read: text(`goes${i}`), gauge: gaugeOf(i) },
    ),
    single,
    byFeeler,
    toggle: () => {
      setByFeeler(!byFeeler);
      setChosen({});
    },
    gaugeOf,
    picker: (index) => (
      <>
        <select
          aria-label={single ? 'Checked with' : `${asked[index]?.name ?? ''}, checked with`}
          value={gaugeOf(index)}
          onChange={(e) => choose(index, e.target.value)}
        >
          {gauges.map((g) => (
            <option key={g.tag} value={g.tag}>
              {g.tag} {g.kind}
              {g.overdue ? ', out of date' : ''}
            </option>
          ))}
        </select>
        {!fitting.length && <AddGauge />}
      </>
    ),
    isFeeler,
    text,
    put,
    fill: (index, goes, stops) => {
      put(`goes${index}`, goes);
      put(`stops${index}`, stops);
    },
  };
}

/** The fields of every check that is asked for: one beside the other for one gap, a row each for several. */
export function CheckRows({ checks, setting }: { checks: Checks; setting: Setting }) {
  const { unit } = useUnit();
  if (checks.single) {
    return checks.byFeeler ? (
      <>
        <Field checks={checks} name="goes0" label={`Leaf that goes (${unit})`} />
        <Field checks={checks} name="stops0" label={`Leaf that does not (${unit})`} />
      </>
    ) : (
      <Field checks={checks} name="goes0" label={`Gap read (${unit})`} />
    );
  }
  return (
    <fieldset className="check-rows">
      <legend>Checked</legend>
      {setting.gaps
        .filter((g) => !g.derived)
        .map((g, i) => (
          <div key={g.key} className="check-row" role="group" aria-label={g.name}>
            <b>{g.name}</b>
            <Field
              checks={checks}
              name={`goes${i}`}
              label={`${checks.isFeeler(i) ? 'goes' : 'reads'} (${unit})`}
            />
            {checks.isFeeler(i) && <Field checks={checks} name={`stops${i}`} label={`does not (${unit})`} />}
            {checks.picker(i)}
            <Proof gap={g} index={i} checks={checks} />
          </div>
        ))}
    </fieldset>
  );
}

function Field({ checks, name, label }: { checks: Checks; name: string; label: string }) {
  return (
    <TextField short label={label} value={checks.text(name)} onChange={(text) => checks.put(name, text)} />
  );
}

interface ProofProps {
  gap: Held;
  index: number;
  checks: Checks;
}

/** Which leaves of the set in hand prove a window: one pile must go, the other must not. */
export function Proof({ gap, index, checks }: ProofProps) {
  const gauge = checks.gaugeOf(index);
  const proof = checks.isFeeler(index) ? gap.proofs.find((p) => p.gauge === gauge) : undefined;
  if (!proof) return null;
  const { go, stop } = proof;
  if (!go || !stop) {
    return (
      <p className="quiet proof">
        {gauge} makes no pile that {go ? 'must not go' : 'must go'} to prove it: the check may have to be
        repeated with another gauge.
      </p>
    );
  }
  return (
    <div className="quiet proof">
      <span>
        {gauge} proves it: <b>{go.leaves}</b> must go, <b>{stop.leaves}</b> must not (±&nbsp;
        {stop.expanded}).
      </span>
      <button type="button" className="tool" onClick={() => checks.fill(index, go.thickness, stop.thickness)}>
        fill in
      </button>
    </div>
  );
}
