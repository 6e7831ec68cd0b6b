import { useRef } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type EndPlay, type Job } from '../../api/client';
import { Lines } from '../../app/Lines';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { useDraft, useUnit } from '../../app/unit';
import { StrikeOut } from '../job/StrikeOut';
import { useChange } from '../job/useJob';

/** End play by indicator, held against the width of the gap's window. */
export function EndPlayTask({ job, view, step }: { job: Job; view: EndPlay; step: string }) {
  const { unit } = useUnit();
  const [typed, setTyped] = useDraft();
  const identity = useRef(newId());
  const save = useChange('proofs', job.number);
  return (
    <section aria-label="End play">
      <h2>End play</h2>
      {view.line && <Lines lines={[view.line]} />}
      {view.line && <StrikeOut job={job} kind="proof" record={view.id} what="end play" />}
      {!job.signed && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (save.isPending) return;
            save.mutate(
              { id: identity.current, step, seen: 'end-play', typed, seconds: '' },
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
            Indicator on the shaft end; push it to the head, then pull. Power locked off. None that the
            indicator shows is 0.
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
