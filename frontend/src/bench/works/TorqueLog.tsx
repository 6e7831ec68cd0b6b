import { useState } from 'react';
import { Button } from 'react-bootstrap';
import type { Job, Tightening } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { moment } from '../../app/time';
import { useChange } from '../useJob';

/** Every torque as logged: never erased, struck out with a reason. */
export function TorqueLog({ job, one }: { job: Job; one: Tightening }) {
  const [striking, setStriking] = useState('');
  if (!one.log.length) return null;
  return (
    <table className="ruled torque-log">
      <caption>Log</caption>
      <thead>
        <tr>
          {one.count > 1 && <th scope="col">Pass, numbers</th>}
          <th scope="col">Set to</th>
          <th scope="col">At the nut</th>
          <th scope="col">Wrench</th>
          <th scope="col">Who</th>
        </tr>
      </thead>
      <tbody>
        {one.log.map((mark) => (
          <tr key={mark.id} className={mark.struck_reason ? 'struck' : ''}>
            {one.count > 1 && (
              <td>
                {mark.pass_number}: {mark.bolts.join(', ')}
              </td>
            )}
            <td>
              {mark.typed}
              {mark.adapter && <small>{mark.adapter}</small>}
            </td>
            <td className="number">{mark.at_nut}</td>
            <td>
              {mark.wrench}
              <small>
                {mark.certificate || 'no certificate'}
                {mark.overdue ? ', out of date' : ''}
              </small>
            </td>
            <td>
              {mark.by}, {moment(mark.at)}
              {mark.struck_reason ? (
                <em> Struck out: {mark.struck_reason}</em>
              ) : (
                !job.signed && (
                  <button type="button" className="take-back" onClick={() => setStriking(mark.id)}>
                    strike out
                  </button>
                )
              )}
              {striking === mark.id && !mark.struck_reason && (
                <Strike job={job} torque={mark.id} onDone={() => setStriking('')} />
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Strike({ job, torque, onDone }: { job: Job; torque: string; onDone: () => void }) {
  const [reason, setReason] = useState('');
  const strike = useChange('torques/strike', job.number);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        strike.mutate({ torque, reason }, { onSuccess: onDone });
      }}
    >
      <TextField
        autoFocus
        label="Why? What was tightened after it falls, too."
        value={reason}
        maxLength={200}
        onChange={setReason}
      />
      <ProblemNote error={strike.error} />
      <Button type="submit" variant="outline-primary" disabled={strike.isPending}>
        Strike out
      </Button>
    </form>
  );
}
