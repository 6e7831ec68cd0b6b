import { useSearchParams } from 'react-router';
import type { Job } from '../api/client';
import { useKeys } from '../app/keys';
import { Section } from '../drawing/Section';
import { Pad } from './Pad';

/** The drawing with its numbered gaps on the left, the reading pad on the right. */
export function Inspect({ job }: { job: Job }) {
  const [search, setSearch] = useSearchParams();
  const features = job.features;
  const first = features.find((f) => f.stations.length > 0 && !f.found) ?? features[0];
  const selected = features.find((f) => f.key === search.get('gap')) ?? first;
  const select = (key: string) => setSearch({ gap: key }, { replace: true });
  const move = (by: number) => {
    const index = features.findIndex((f) => f.key === selected?.key);
    const next = features[(index + by + features.length) % features.length];
    if (next) select(next.key);
  };
  useKeys([
    { key: 'ArrowUp', show: '↑', label: 'gap before', run: () => move(-1) },
    { key: 'ArrowDown', show: '↓', label: 'next gap', run: () => move(1) },
  ]);
  if (!selected) return <p className="blank">This family has nothing to measure.</p>;
  return (
    <div className="stage drawing-and-pad">
      <section aria-label="Section drawing">
        <Section features={features} selected={selected.key} onSelect={select} />
        <p className="quiet">Gaps are drawn wide. {said(job)}</p>
      </section>
      <Pad
        key={selected.key}
        job={job}
        feature={selected}
        phase="found"
        onDone={() => nextOpen(job, selected.key, select)}
      />
    </div>
  );
}

function said(job: Job): string {
  const open = job.features.filter((f) => f.stations.length > 0 && !f.found);
  if (!open.length) return 'Everything is measured: go on to Decide.';
  return `To measure: ${open.map((f) => f.name.toLowerCase()).join('; ')}.`;
}

function nextOpen(job: Job, key: string, select: (key: string) => void): void {
  const measurable = job.features.filter((f) => f.stations.length > 0);
  const index = measurable.findIndex((f) => f.key === key);
  const after = [...measurable.slice(index + 1), ...measurable.slice(0, index)];
  const next = after.find((f) => !f.found);
  if (next) select(next.key);
}
