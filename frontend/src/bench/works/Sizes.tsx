import { useState } from 'react';
import type { Feature, Job } from '../../api/client';
import { Pad } from '../Pad';

/** What is measured at this step: parts about to be pressed, and what was fitted. */
export function Sizes({ job, features }: { job: Job; features: Feature[] }) {
  const open = (f: Feature) => !(f.left ?? f.look_left);
  // Kept while its stations are taken: one reading does not finish a part.
  const [chosen, setChosen] = useState((features.find(open) ?? features[0])?.key);
  const selected = features.find((f) => f.key === chosen) ?? features[0];
  if (!selected) return null;
  return (
    <section aria-label="As left">
      <div className="part-tabs" role="group" aria-label="What is measured here">
        {features.map((f) => (
          <button
            type="button"
            key={f.key}
            aria-pressed={f.key === selected.key}
            onClick={() => setChosen(f.key)}
          >
            {f.name}
            <small>
              {f.left ? `${f.left.text}${f.press ? '' : ' as left'}` : (f.look_left?.words ?? 'to do')}
            </small>
          </button>
        ))}
      </div>
      <Pad
        key={selected.key}
        job={job}
        feature={selected}
        phase="left"
        onDone={() => setChosen(features.find((f) => open(f) && f !== selected)?.key ?? selected.key)}
      />
    </section>
  );
}
