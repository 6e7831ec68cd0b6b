import { useState } from 'react';
import type { Job } from '../api/client';
import { Pad } from './Pad';
import { Steps } from './Steps';
import { Torques } from './Torques';

/** Putting it together, and measuring what was fitted. */
export function Build({ job }: { job: Job }) {
  const changed = job.features.filter((f) => f.decision?.decided === 'change');
  const parts = new Set(changed.flatMap((f) => (f.parts.length ? f.parts : [f.key])));
  const measurable = job.features.filter((f) => parts.has(f.key));
  const open = measurable.find((f) => !(f.left ?? f.look_left)) ?? measurable[0];
  // Kept while its stations are taken: one reading does not finish a part.
  const [chosen, setChosen] = useState(open?.key);
  const selected = measurable.find((f) => f.key === chosen) ?? open;
  return (
    <div className="stage two-columns">
      <div>
        <Steps job={job} stage="build" />
        <Torques job={job} />
      </div>
      <section aria-label="As left">
        {selected ? (
          <>
            <div className="part-tabs" role="group" aria-label="What was fitted">
              {measurable.map((f) => (
                <button
                  type="button"
                  key={f.key}
                  aria-pressed={f.key === selected.key}
                  onClick={() => setChosen(f.key)}
                >
                  {f.name}
                  <small>
                    {f.left ? `${f.left.text} as left` : (f.look_left?.words ?? 'to do as fitted')}
                  </small>
                </button>
              ))}
            </div>
            <Pad
              key={selected.key}
              job={job}
              feature={selected}
              phase="left"
              onDone={() =>
                setChosen(
                  measurable.find((f) => !(f.left ?? f.look_left) && f !== selected)?.key ?? selected.key,
                )
              }
            />
          </>
        ) : (
          <p className="quiet">Nothing was decided to be changed, so nothing new has to be measured.</p>
        )}
      </section>
    </div>
  );
}
