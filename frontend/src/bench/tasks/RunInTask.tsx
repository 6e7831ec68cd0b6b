import { useEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Coach, type Job } from '../../api/client';
import { useKeys } from '../../app/keys';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { useDraft } from '../../app/unit';
import { useSign } from '../../app/works';
import { RunInPlot } from '../../drawing/RunInPlot';
import { StrikeOut } from '../job/StrikeOut';
import { useChange } from '../job/useJob';

const TURNS = [
  [0, 'not turned'],
  [0.5, 'tightened 1/16'],
  [1, 'tightened 1/8'],
  [-1, 'backed off 1/8'],
] as const;

/** The coach for packing: what to do next, drops counted by tapping, the box's temperature, and the log drawn. */
export function RunInTask({ job, view: coach }: { job: Job; view: Coach }) {
  return (
    <section aria-label="Run-in of the packing">
      <div className={`coach says-${coach.say.replace(' ', '-')}`} aria-live="polite">
        <p className="step-text">{coach.headline}</p>
        <p>{coach.why}</p>
      </div>
      {!job.signed && <NoteForm job={job} coach={coach} />}
      <RunInPlot coach={coach} />
      <Log job={job} coach={coach} />
    </section>
  );
}

function NoteForm({ job, coach }: { job: Job; coach: Coach }) {
  const sign = useSign('temperature');
  const [drops, setDrops] = useState('');
  const [box, setBox] = useDraft('', sign);
  const [minute, setMinute] = useState('');
  const [eighths, setEighths] = useState(0);
  const counter = useTaps();
  const identity = useRef(newId());
  const note = useChange('run-in', job.number);
  useKeys([{ key: 'k', label: 'a drop', run: counter.tap }]);
  return (
    <form
      className="note-form"
      aria-label={`Line ${coach.notes.length + 1} of the run-in`}
      onSubmit={(event) => {
        event.preventDefault();
        if (note.isPending) return;
        const taps = counter.taps;
        note.mutate(
          { id: identity.current, drops, taps_s: drops.trim() ? [] : taps, box, minute, eighths },
          {
            onSuccess: () => {
              identity.current = newId();
              // What was begun while the line was on its way is the next line's.
              const done = (sent: string) => (now: string) => (now === sent ? '' : now);
              setDrops(done(drops));
              setBox(done(box));
              setMinute(done(minute));
              setEighths((now) => (now === eighths ? 0 : now));
              counter.done(taps);
            },
          },
        );
      }}
    >
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
      <div className="try-check">
        <TextField short label="Or drops a minute" value={drops} onChange={setDrops} />
        <TextField short label={`Box (${sign})`} value={box} onChange={setBox} />
        <TextField short label="Minute, if not now" value={minute} onChange={setMinute} />
      </div>
      <fieldset className="turns">
        <legend>The gland, after looking</legend>
        {TURNS.map(([by, name]) => (
          <label key={name}>
            <input type="radio" name="turn" checked={eighths === by} onChange={() => setEighths(by)} /> {name}
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

const SHOWN = 6;

function Log({ job, coach }: { job: Job; coach: Coach }) {
  const [all, setAll] = useState(false);
  if (!coach.notes.length) return null;
  const shown = all ? coach.notes : coach.notes.slice(-SHOWN);
  return (
    <>
      <table className="ruled">
        <caption className={shown.length < coach.notes.length ? '' : 'visually-hidden'}>
          {shown.length < coach.notes.length ? (
            <button type="button" className="fold" onClick={() => setAll(true)}>
              {coach.notes.length - shown.length} earlier lines ▾
            </button>
          ) : (
            'Log of the run-in'
          )}
        </caption>
        <thead>
          <tr>
            <th scope="col">Minute</th>
            <th scope="col">Drops a minute</th>
            <th scope="col">Box</th>
            <th scope="col">Gland</th>
            <th scope="col">Who</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((n) => (
            <tr key={n.number}>
              <td>{n.minute.toFixed(0)}</td>
              <td>{n.drops_text || '–'}</td>
              <td>{n.box || '–'}</td>
              <td>{n.turn || '–'}</td>
              <td>
                {n.by}{' '}
                <StrikeOut
                  job={job}
                  kind="run-in"
                  record={n.id}
                  what={`line at minute ${n.minute.toFixed(0)}`}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
