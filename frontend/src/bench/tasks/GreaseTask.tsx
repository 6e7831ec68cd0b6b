import { useState } from 'react';
import type { Grease, Job } from '../../api/client';
import { Lines } from '../../app/Lines';
import { ProblemNote } from '../../app/ProblemNote';
import { GunForm } from '../../toolbox/GunForm';
import { useChange } from '../job/useJob';

/** How much each bearing gets, in grams and in strokes of the gun in hand. */
export function GreaseTask({ job, view }: { job: Job; view: Grease }) {
  const say = useChange('on-the-bench', job.number);
  const [weighing, setWeighing] = useState(false);
  const { gun, guns } = job.building;
  const { bearings } = view;
  const inHand = guns.find((g) => g.tag === gun);
  if (!bearings.length)
    return <p className="quiet">The sheet gives no bearing sizes: by the maker's manual.</p>;
  return (
    <section aria-label="Grease and oil">
      <div className="work-head">
        <h2>Grease and oil</h2>
        <GunInHand
          job={job}
          gun={(say.isPending && say.variables.change.gun) || gun}
          onGun={(tag) => say.mutate({ gun: tag })}
        />
        {!job.signed && (
          <button
            type="button"
            className="tool"
            aria-pressed={weighing}
            onClick={() => setWeighing(!weighing)}
          >
            Weigh a gun
          </button>
        )}
      </div>
      {inHand && (
        <p className="quiet">
          Ten strokes of {inHand.tag} weighed {inHand.ten} on {inHand.weighed}.
        </p>
      )}
      {weighing && (
        <GunForm
          gun={inHand}
          onSaved={(tag) => {
            setWeighing(false);
            say.mutate({ gun: tag });
          }}
        />
      )}
      <ProblemNote error={say.error} />
      {bearings.map((bearing) => (
        <div key={bearing.name}>
          <h3>{bearing.name}</h3>
          <Lines lines={bearing.lines} />
        </div>
      ))}
    </section>
  );
}

interface GunProps {
  job: Job;
  gun: string;
  onGun: (tag: string) => void;
}

function GunInHand({ job, gun, onGun }: GunProps) {
  return (
    <label className="inline-field">
      Grease gun{' '}
      <select value={gun} disabled={job.signed !== null} onChange={(event) => onGun(event.target.value)}>
        <option value="">none</option>
        {job.building.guns.map((g) => (
          <option key={g.tag} value={g.tag}>
            {g.tag}, {g.grease}
          </option>
        ))}
      </select>
    </label>
  );
}
