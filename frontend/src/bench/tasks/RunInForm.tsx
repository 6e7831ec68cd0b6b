import { useEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Coach, type Job } from '../../api/client';
import { useKeys } from '../../app/keys';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { useDraft } from '../../app/unit';
import { useSign } from '../../app/works';
import { useChange } from '../job/useJob';

const TURNS = [
  [0, 'not turned'],
  [0.5, 'tightened 1/16'],
  [1, 'tightened 1/8'],
  [-1, 'backed off 1/8'],
] as const;

/** A line of the run-in being written; what is begun while it is on its way is the next line's. */
function useNote(job: Job, counter: Taps) {
  const sign = useSign('temperature');
  const [drops, setDrops] = useState('');
  const [box, setBox] = useDraft('', sign);
  const [minute, setMinute] = useState('');
  const [eighths, setEighths] = useState(0);
  const identity = useRef(newId());
  const note = useChange('run-in', job.number);
  const send = () => {
    if (note.isPending) return;
    const taps = counter.taps;
    note.mutate(
      { id: identity.current, drops, taps_s: drops.trim() ? [] : taps, box, minute, eighths },
      {
        onSuccess: () => {
          identity.current = newId();
          const done = (sent: string) => (now: string) => (now === sent ? '' : now);
          setDrops(done(drops));
          setBox(done(box));
          setMinute(done(minute));
          setEighths((now) => (now === eighths ? 0 : now));
          counter.done(taps);
        },
      },
    );
  };
  return { sign, drops, setDrops, box, setBox, minute, setMinute, eighths, setEighths, note, send };
}

/** Drops counted by tapping or typed, the box's temperature, and what was turned. */
export function NoteForm({ job, coach }: { job: Job; coach: Coach }) {
  const counter = useTaps();
  const { note, ...form } = useNote(job, counter);
  useKeys([{ key: 'k', label: 'a drop', run: counter.tap }]);
  return (
    <form
      className="note-form"
      aria-label={`Line ${coach.notes.length + 1} of the run-in`}
      onSubmit={(event) => {
        event.preventDefault();
        form.send();
      }}
    >
      <Tapper counter={counter} />
      <div className="try-check">
        <TextField short label="Or drops a minute" value={form.drops} onChange={form.setDrops} />
        <TextField short label={`Box (${form.sign})`} value={form.box} onChange={form.setBox} />
        <TextField short label="Minute, if not now" value={form.minute} onChange={form.setMinute} />
      </div>
      <fieldset className="turns">
        <legend>The gland, after looking</legend>
        {TURNS.map(([by, name]) => (
          <label key={name}>
            <input
              type="radio"
              name="turn"
              checked={form.eighths === by}
              onChange={() => form.setEighths(by)}
            />{' '}
            {name}
          </label>
        ))}
      </fieldset>
      <ProblemNote error={note.error} onConfirm={note.confirm} />
      <Button type="submit" size="lg" disabled={note.isPending}>
        Save line {coach.notes.length + 1}
      </Button>
    </form>
  );
}

function Tapper({ counter }: { counter: Taps }) {
  return (
    <div className="tapper">
      <button type="button" className="tap" onClick={counter.tap}>
        A drop
      </button>
      <p>
        {counter.taps.length ? (
          <>
            <b>{counter.taps.length}</b> in {counter.seconds.toFixed(0)} s{' '}
            <button type="button" className="working-link" onClick={counter.clear}>
              begin again
            </button>
          </>
        ) : (
          'Tap, or press K, each time a drop falls; three or more.'
        )}
      </p>
    </div>
  );
}

/** When drops fell, in seconds since the first. */
function useTaps() {
  const [taps, setTaps] = useState<number[]>([]);
  const first = useRef(0);
  const [now, setNow] = useState(0);
  const counting = taps.length > 0;
  useEffect(() => {
    if (!counting) return;
    const timer = setInterval(() => setNow((performance.now() - first.current) / 1000), 500);
    return () => clearInterval(timer);
  }, [counting]);
  return {
    taps,
    seconds: Math.max(now, taps.at(-1) ?? 0),
    tap: () => {
      if (!counting) first.current = performance.now();
      const at = counting ? (performance.now() - first.current) / 1000 : 0;
      // Two presses of one finger are not two drops.
      setTaps((before) => (before.length && at - (before.at(-1) ?? 0) < 0.1 ? before : [...before, at]));
    },
    clear: () => setTaps([]),
    done: (sent: number[]) => setTaps((now) => (now.length === sent.length ? [] : now)),
  };
}

type Taps = ReturnType<typeof useTaps>;
