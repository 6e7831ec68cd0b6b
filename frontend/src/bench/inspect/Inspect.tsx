import { lazy, Suspense, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Feature, Job } from '../../api/client';
import { useKeys } from '../../app/keys';
import { PumpOrRoom } from '../../drawing/PumpDrawing';
import { Magnifier } from '../../drawing/Magnifier';
import { stateOf } from '../../drawing/stateOf';
import { useDrawing } from '../../drawing/useDrawing';
import { Pad } from './Pad';
import { drawn, toDo } from '../job/stages';

const FromPaper = lazy(async () => ({ default: (await import('./FromPaper')).FromPaper }));

/** At the drawing, or in the order of a paper bench sheet. */
export function Inspect({ job }: { job: Job }) {
  const [search, setSearch] = useSearchParams();
  if (!search.has('paper')) return <AtDrawing job={job} />;
  return (
    <Suspense fallback={<p className="quiet">One moment …</p>}>
      <FromPaper job={job} features={drawn(job)} onHide={() => setSearch({}, { replace: true })} />
    </Suspense>
  );
}

/** The drawing with its numbered gaps on the left, the reading pad on the right. */
function AtDrawing({ job }: { job: Job }) {
  const [search, setSearch] = useSearchParams();
  const features = drawn(job);
  const { drawing, lost } = useDrawing(job);
  // The part in hand is chosen once, and changes by the technician's own act alone: never because something was saved.
  const [begun] = useState(() => (toDo(features)[0] ?? features[0])?.key);
  const selected = features.find((f) => f.key === (search.get('gap') ?? begun)) ?? features[0];
  const select = (key: string) => setSearch({ gap: key }, { replace: true });
  const following = selected && after(features, selected.key);
  const move = (by: number) => {
    const index = features.findIndex((f) => f.key === selected?.key);
    const next = features[(index + by + features.length) % features.length];
    if (next) select(next.key);
  };
  useKeys([
    { key: 'ArrowUp', label: '', run: () => move(-1) },
    { key: 'ArrowDown', show: '↑ ↓', label: 'gap', run: () => move(1) },
  ]);
  const place = drawing?.numbers.find((one) => one.key === selected?.key);
  if (!selected) return <p className="blank">This family has nothing to measure.</p>;
  return (
    <div className="stage drawing-and-pad">
      <section aria-label="Drawing">
        <PumpOrRoom
          drawing={drawing}
          lost={lost}
          features={features}
          selected={selected.key}
          onSelect={select}
        />
        <GapPicker features={features} selected={selected} onSelect={select} onMove={move} alone={lost} />
        {place && selected.kind !== 'check' && (
          <Magnifier
            feature={selected}
            faces={place.faces}
            mate={features.find((f) => f.key === place.mate)}
            window={windowOf(job, place.set_as)}
            width={drawing?.width ?? 0}
          />
        )}
        <p className="quiet">
          {said(job)} <ToPaper job={job} onGo={() => setSearch({ paper: '1' })} />
        </p>
      </section>
      <Pad
        key={selected.key}
        job={job}
        feature={selected}
        phase="found"
        onNext={following ? () => select(following.key) : undefined}
      />
    </div>
  );
}

/** Numbers written on paper are typed in its order. */
function ToPaper({ job, onGo }: { job: Job; onGo: () => void }) {
  if (job.signed || job.abandoned) return null;
  return (
    <button type="button" className="take-back" onClick={onGo}>
      From paper
    </button>
  );
}

interface PickerProps {
  features: Feature[];
  selected: Feature;
  onSelect: (key: string) => void;
  onMove: (by: number) => void;
  /** There is no drawing to choose on. */
  alone: boolean;
}

/** On a tablet the numbers on the drawing are small for a glove: the same gaps by name, and one on, one back. */
function GapPicker({ features, selected, onSelect, onMove, alone }: PickerProps) {
  return (
    <div className={`gap-picker${alone ? ' alone' : ''}`}>
      <button type="button" className="tool" aria-label="Gap before" onClick={() => onMove(-1)}>
        ◂
      </button>
      <select
        aria-label="Gap in hand"
        value={selected.key}
        onChange={(event) => onSelect(event.target.value)}
      >
        {features.map((f) => {
          const { value, verdict } = stateOf(f);
          return (
            <option key={f.key} value={f.key}>
              {f.number} {f.name}: {[value, verdict].filter(Boolean).join(', ')}
            </option>
          );
        })}
      </select>
      <button type="button" className="tool" aria-label="Next gap" onClick={() => onMove(1)}>
        ▸
      </button>
    </div>
  );
}

/** What comes next: what the symptom points at, else the next number that is open, round to the first. */
function after(features: Feature[], key: string): Feature | undefined {
  const open = toDo(features.filter((f) => f.key !== key));
  const here = features.find((f) => f.key === key)?.number ?? 0;
  return open.find((f) => f.suspect > 0) ?? open.find((f) => f.number > here) ?? open[0];
}

/** What a gap is to be set to. */
function windowOf({ setting, mesh }: Job, setAs: string) {
  return [setting, mesh].flatMap((one) => one?.gaps ?? []).find((gap) => setAs && gap.key === setAs);
}

function said(job: Job): string {
  const open = toDo(job.features);
  if (job.explained && open.length) return job.explained.sentence;
  if (!open.length) return 'Everything is measured: go on to Decide.';
  const names = open.map((f) => f.name.toLowerCase());
  return `Still to do: ${names.slice(0, 5).join('; ')}${names.length > 5 ? `; and ${names.length - 5} more` : ''}.`;
}
