import { useState } from 'react';
import type { Feature, Job } from '../../api/client';
import { NewPart } from '../build/NewPart';
import { Pad } from '../inspect/Pad';

/** What is measured at this step: parts about to be pressed, and what was fitted. */
export function Sizes({ job, features }: { job: Job; features: Feature[] }) {
  const open = (f: Feature) => (f.to_confirm ? !f.renewed : !f.left || f.partial_left !== '');
  // The part in hand changes by the technician's own act alone.
  const [chosen, setChosen] = useState((features.find(open) ?? features[0])?.key);
  const selected = features.find((f) => f.key === chosen) ?? features[0];
  if (!selected) return null;
  // Round from the part in hand: one before it may still wait for its answers.
  const at = features.indexOf(selected);
  const following = [...features.slice(at + 1), ...features.slice(0, at)].find(open);
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
            <small>{said(f)}</small>
          </button>
        ))}
      </div>
      <NewPart key={`new ${selected.key}`} job={job} feature={selected} />
      <Pad
        key={selected.key}
        job={job}
        feature={selected}
        phase="left"
        onNext={following ? () => setChosen(following.key) : undefined}
      />
    </section>
  );
}

/** How far a part has come, in a few words. */
function said(f: Feature): string {
  if (f.to_confirm) return f.renewed ? 'new, confirmed' : 'new: to confirm';
  if (f.left)
    return `${f.left.text}${f.press ? '' : ' as left'}${f.partial_left ? `, ${f.partial_left}` : ''}`;
  return f.look_left?.words ?? 'to do';
}
