import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Housing, type Job } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { useDraft, useUnit } from '../../app/unit';
import { useChange } from '../job/useJob';

const SCHOOLS = [
  [
    'close to first drag',
    'Turn in while you turn the shaft, and stop where drag is just felt. Leaves the play loaded closed.',
  ],
  [
    'back off from bind',
    'Turn in until it is hard to turn, ease out until it just turns with slight drag. Leaves the play loaded open.',
  ],
] as const;

/** Zero first: which school, and the play if it is known. */
export function FindZero({ job, housing }: { job: Job; housing: Housing }) {
  const [school, setSchool] = useState(housing.school);
  const { unit } = useUnit();
  const [lash, setLash] = useDraft();
  const [lashArc, setLashArc] = useDraft();
  const zero = useChange('zero', job.number);
  const closes = housing.hand === 'right' ? 'clockwise' : 'counterclockwise';
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        zero.mutate({ id: newId(), school, lash, lash_arc: lashArc });
      }}
    >
      <p className="headline">Find zero: turn the housing {closes} until the rotor just drags</p>
      <p className="details">
        Loosen both face screws first; turn the shaft by hand all the while. Then draw one line across bracket
        and housing. Never find zero by forcing the shaft until it locks, never run at zero.
      </p>
      <Schools housing={housing} school={school} onSchool={setSchool} />
      <div className="two-fields">
        <TextField
          label={`Play, if not ${housing.lash} (${unit})`}
          keyboard="decimal"
          value={lash}
          onChange={setLash}
        />
        <TextField
          label={`Or arc before the rotor follows (${unit})`}
          keyboard="decimal"
          value={lashArc}
          onChange={setLashArc}
        />
      </div>
      <p className="quiet">
        Play is taken up each time the direction changes. Left empty, the sheet's own counts; the check
        reading shows whether it is right.
      </p>
      <ProblemNote error={zero.error} onConfirm={zero.confirm} />
      <Button type="submit" size="lg" disabled={zero.isPending}>
        Zero is found
      </Button>
    </form>
  );
}

interface SchoolsProps {
  housing: Housing;
  school: string;
  onSchool: (school: (typeof SCHOOLS)[number][0]) => void;
}

/** The two ways to find zero, each with what it leaves. */
function Schools({ housing, school, onSchool }: SchoolsProps) {
  return (
    <fieldset>
      <legend>How zero was found</legend>
      <div className="pick-list">
        {SCHOOLS.map(([key, how]) => (
          <label key={key}>
            <input
              type="radio"
              name="school"
              value={key}
              checked={school === key}
              onChange={() => onSchool(key)}
            />
            <span>
              <b>{key}</b>
              {key === housing.prescribed && <i> as the sheet says</i>}
              <small>{how}</small>
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
