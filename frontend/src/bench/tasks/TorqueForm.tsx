import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { newId, type Job, type Tightening } from '../../api/client';
import { sumQuery } from '../../api/queries';
import { Lines } from '../../app/Lines';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { useDraft, useDrafts, useUnit } from '../../app/unit';
import { useEntered, useSign } from '../../app/works';
import { useChange } from '../job/useJob';

/** Sooner than this after the last one no fastener has been tightened. */
const TWICE_MS = 400;

interface FormProps {
  job: Job;
  one: Tightening;
  pass: number;
}

/** Logs fasteners of a pass: the next one, or all that are left. */
function useLog({ job, one, pass }: FormProps) {
  const sign = useSign('torque');
  const log = useChange('torques', job.number);
  const [typed, setTyped] = useDraft('', sign);
  const [wrench, setWrench] = useState(one.wrench);
  const [adapting, setAdapting] = useState(false);
  const [adapter, putAdapter] = useDrafts({ wrench: '', length: '', angle: '0' }, (name) =>
    name === 'angle' ? '°' : undefined,
  );
  const logged = useRef(-Infinity);
  const send = (bolts: number[]) => {
    // A double press must not log the next one, too.
    if (log.isPending || !bolts.length || performance.now() - logged.current < TWICE_MS) return;
    const by = adapting ? adapter : {};
    const body = {
      id: newId(),
      fastener: one.fastener_key,
      pass_number: pass,
      ...{ bolts, typed, wrench },
      wrench_length: by.wrench ?? '',
      adapter: by.length ?? '',
      angle: by.angle ?? '',
    };
    log.mutate(body, { onSuccess: () => (logged.current = performance.now()) });
  };
  return { log, sign, typed, setTyped, wrench, setWrench, adapting, setAdapting, adapter, putAdapter, send };
}

export function LogForm(props: FormProps) {
  const { job, one } = props;
  const { log, send, adapting, setAdapting, ...form } = useLog(props);
  const many = one.left.length > 1;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        send(one.left.slice(0, 1));
      }}
    >
      <div className="big-field torque-field">
        <input
          type="text"
          data-pad="1"
          inputMode="decimal"
          autoComplete="off"
          maxLength={40}
          aria-label="Torque the wrench is set to"
          value={form.typed}
          onChange={(event) => form.setTyped(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && event.shiftKey) {
              event.preventDefault();
              send(one.left);
            }
          }}
        />
        <span className="unit">{form.sign}</span>
      </div>
      <WrenchPick job={job} one={one} wrench={form.wrench} onWrench={form.setWrench} />
      <button type="button" className="tool" aria-pressed={adapting} onClick={() => setAdapting(!adapting)}>
        With an adapter
      </button>
      {adapting && <AdapterFields typed={form.adapter} middle={one.middle} put={form.putAdapter} />}
      <ProblemNote error={log.error} onConfirm={log.confirm} />
      {many && (
        <p className="quiet">Enter logs the next one, Shift and Enter all that are left of the pass.</p>
      )}
      <div className="choices">
        <Button type="submit" disabled={log.isPending}>
          {one.count > 1 ? `Log number ${one.left[0]}` : 'Log it'}
        </Button>
        {many && (
          <Button variant="outline-primary" disabled={log.isPending} onClick={() => send(one.left)}>
            Log {one.left.length === one.count ? 'the whole pass' : `the other ${one.left.length}`}, in order
          </Button>
        )}
      </div>
    </form>
  );
}

interface WrenchProps {
  job: Job;
  one: Tightening;
  wrench: string;
  onWrench: (tag: string) => void;
}

function WrenchPick({ job, one, wrench, onWrench }: WrenchProps) {
  const wrenches = job.gauges.filter((g) => g.kind === 'torque wrench');
  return (
    <label className="gauge-pick">
      Wrench
      <select value={wrench} onChange={(event) => onWrench(event.target.value)}>
        <option value="">{one.wrench ? 'choose' : 'none in the cabinet reaches this'}</option>
        {wrenches.map((g) => (
          <option key={g.tag} value={g.tag}>
            {g.tag} {g.range}
            {g.certificate ? `, certificate ${g.certificate}` : ''}
            {g.overdue ? ', out of date' : ''}
          </option>
        ))}
      </select>
    </label>
  );
}

interface AdapterProps {
  typed: Record<string, string>;
  middle: string;
  put: (name: string, text: string) => void;
}

/** What the wrench is set to so that the nut gets the middle of the pass. */
function AdapterFields({ typed, middle, put }: AdapterProps) {
  const { unit } = useUnit();
  const entered = useEntered();
  const { wrench = '', length = '', angle = '' } = typed;
  const given = { torque: middle, wrench, adapter: length, angle };
  const whole = Boolean(wrench.trim() && length.trim());
  const sum = useQuery({ ...sumQuery('adapter', given, entered()), enabled: whole });
  return (
    <>
      <div className="try-check">
        <TextField
          short
          label={`Wrench, drive to grip (${unit})`}
          value={wrench}
          onChange={(text) => put('wrench', text)}
        />
        <TextField
          short
          label={`Adapter, drive to nut (${unit})`}
          value={length}
          onChange={(text) => put('length', text)}
        />
        <TextField
          short
          label="Angle (°), 0 straight on"
          value={angle}
          onChange={(text) => put('angle', text)}
        />
      </div>
      {whole && sum.data && (
        <>
          <p className="quiet">For {middle} at the nut:</p>
          <Lines lines={sum.data} />
        </>
      )}
      {whole && <ProblemNote error={sum.error} />}
    </>
  );
}
