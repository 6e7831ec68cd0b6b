import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Job, type Turning } from '../../api/client';
import { useKeys } from '../../app/keys';
import { ProblemNote } from '../../app/ProblemNote';
import { moment } from '../../app/time';
import { StrikeOut } from '../job/StrikeOut';
import { useChange } from '../job/useJob';

const HOURS = ['12', '1', '2', '3', '4', '5', '6', '7', '8', '9', '10', '11'];

/** The shaft turned by hand, all the way round: free, or tight at which hours of the clock. */
export function TurningTask({ job, view, step }: { job: Job; view: Turning; step: string }) {
  const turning = view.seen;
  const [tight, setTight] = useState<string[]>(turning?.places ?? []);
  const see = useChange('proofs', job.number);
  const say = (places: string[]) =>
    see.mutate({ id: newId(), step, seen: 'turning', typed: '', seconds: '', places });
  useKeys(job.signed ? [] : [{ key: 'f', label: 'turns freely', run: () => say([]) }]);
  const toggle = (hour: string) =>
    setTight((now) => (now.includes(hour) ? now.filter((h) => h !== hour) : [...now, hour]));
  return (
    <section aria-label="Turned by hand">
      <h2>Turned by hand, all the way round</h2>
      {turning && (
        <div className={turning.places.length ? 'problem' : 'found-free'}>
          {turning.places.length ? 'The shaft is ' : 'The shaft '}
          <b>{turning.typed}</b>. {turning.by}, {moment(turning.at)}.{' '}
          <StrikeOut job={job} kind="proof" record={turning.id} what="turned by hand" />
        </div>
      )}
      {!job.signed && (
        <>
          <p className="quiet">Power locked off. Mark the shaft, turn it slowly, and feel where it drags.</p>
          <div className="clock" role="group" aria-label="Where it is tight, seen from the shaft end">
            {HOURS.map((hour, i) => (
              <button
                key={hour}
                type="button"
                style={{ '--turn': `${i * 30}deg` } as React.CSSProperties}
                aria-pressed={tight.includes(hour)}
                aria-label={`tight at ${hour} o'clock`}
                onClick={() => toggle(hour)}
              >
                {hour}
              </button>
            ))}
            <span className="clock-hub">{tight.length ? 'tight' : 'free'}</span>
          </div>
          <ProblemNote error={see.error} />
          <div className="choices">
            {tight.length > 0 ? (
              <Button size="lg" disabled={see.isPending} onClick={() => say(tight)}>
                Record: tight at {[...tight].sort((a, b) => Number(a) - Number(b)).join(', ')}
              </Button>
            ) : (
              <Button size="lg" disabled={see.isPending} onClick={() => say([])}>
                Turns freely all the way round
              </Button>
            )}
          </div>
        </>
      )}
    </section>
  );
}
