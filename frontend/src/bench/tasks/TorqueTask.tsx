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
import { BoltCircle } from '../../drawing/BoltCircle';
import { useChange } from '../job/useJob';
import { TorqueLog } from './TorqueLog';

/** Sooner than this after the last one no fastener has been tightened. */
const TWICE_MS = 400;

/** A line of the torque table: its order, the pass in hand, the wrench, and the log. */
export function TorqueTask({ job, view: one }: { job: Job; view: Tightening }) {
  const number = one.pass_number ?? one.passes.length;
  const pass = one.passes.find((p) => p.number === number);
  return (
    <section className="torque-work" aria-label={one.fastener}>
      <h2>{one.fastener}</h2>
      <p className="quiet">
        {one.torque}, {one.condition}
        {one.page ? ` · sheet page ${one.page}` : ''}
        {one.count > 1 ? ` · ${one.count} fasteners, ${one.passes.length} passes` : ''}
      </p>
      <div className={one.count > 1 ? 'bolts-and-form' : ''}>
        {one.count > 1 && <BoltCircle order={one.order} left={one.left} />}
        <div>
          {one.pass_number === null ? (
            <p className="all-done">All logged.</p>
          ) : (
            <>
              <p className="kicker">
                {one.count > 1
                  ? `Pass ${number} of ${one.passes.length}, ${pass?.done} of ${one.count} done`
                  : 'At the nut'}
              </p>
              <p className="headline">{pass?.torque}</p>
              {!job.signed && <LogForm key={one.pass_number} job={job} one={one} pass={one.pass_number} />}
            </>
          )}
        </div>
      </div>
      <Lines lines={one.lines} />
      <TorqueLog job={job} one={one} />
    </section>
  );
}

interface FormProps {
  job: Job;
  one: Tightening;
  pass: number;
}

function LogForm({ job, one, pass }: FormProps) {
  const sign = useSign('torque');
  const log = useChange('torques', job.number);
  const [typed, setTyped] = useDraft('', sign);
  const [wrench, setWrench] = useState(one.wrench);
  const [adapting, setAdapting] = useState(false);
  const [adapter, putAdapter] = useDrafts({ wrench: '', length: '', angle: '0' }, (name) =>
    name === 'angle' ? '°' : undefined,
  );
  const wrenches = job.gauges.filter((g) => g.kind === 'torque wrench');
  const next = one.left[0];
  const logged = useRef(-Infinity);
  const send = (bolts: number[]) => {
    // A double press must not log the next one, too.
    if (log.isPending || !bolts.length || performance.now() - logged.current < TWICE_MS) return;
    const body = {
      id: newId(),
      fastener: one.fastener_key,
      pass_number: pass,
      bolts,
      typed,
      wrench,
      wrench_length: adapting ? (adapter.wrench ?? '') : '',
      adapter: adapting ? (adapter.length ?? '') : '',
      angle: adapting ? (adapter.angle ?? '') : '',
    };
    log.mutate(body, { onSuccess: () => (logged.current = performance.now()) });
  };
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
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && event.shiftKey) {
              event.preventDefault();
              send(one.left);
            }
          }}
        />
        <span className="unit">{sign}</span>
      </div>
      <label className="gauge-pick">
        Wrench
        <select value={wrench} onChange={(event) => setWrench(event.target.value)}>
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
      <button type="button" className="tool" aria-pressed={adapting} onClick={() => setAdapting(!adapting)}>
        With an adapter
      </button>
      {adapting && <AdapterFields typed={adapter} middle={one.middle} put={putAdapter} />}
      <ProblemNote error={log.error} onConfirm={log.confirm} />
      {many && (
        <p className="quiet">Enter logs the next one, Shift and Enter all that are left of the pass.</p>
      )}
      <div className="choices">
        <Button type="submit" disabled={log.isPending}>
          {one.count > 1 ? `Log number ${next}` : 'Log it'}
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
