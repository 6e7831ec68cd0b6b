import { useRef } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Job } from '../../api/client';
import { Lines } from '../../app/Lines';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { useDraft, useUnit } from '../../app/unit';
import { useChange } from '../useJob';

/** End play by indicator, held against the width of the gap's window; feeling that there is none needs no number. */
export function EndPlayWork({ job }: { job: Job }) {
  const { unit } = useUnit();
  const [typed, setTyped] = useDraft();
  const identity = useRef(newId());
  const save = useChange('proofs', job.number);
  return (
    <section aria-label="End play">
      <h2>End play, where it can be measured</h2>
      {job.proving.play && <Lines lines={[job.proving.play]} />}
      {!job.signed && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (save.isPending) return;
            save.mutate(
              { id: identity.current, seen: 'end-play', typed, seconds: '' },
              {
                onSuccess: () => {
                  identity.current = newId();
                  setTyped('');
                },
              },
            );
          }}
        >
          <p className="quiet">
            Indicator on the shaft end; push it to the head, then pull. Power locked off. None to be felt
            needs no number.
          </p>
          <div className="try-check">
            <TextField short label={`Pushed and pulled (${unit})`} value={typed} onChange={setTyped} />
            <Button type="submit" disabled={save.isPending}>
              Save
            </Button>
          </div>
          <ProblemNote error={save.error} onConfirm={save.confirm} />
        </form>
      )}
    </section>
  );
}
