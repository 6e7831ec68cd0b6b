import { useState } from 'react';
import { Button } from 'react-bootstrap';
import type { Job } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { useChange } from './useJob';

type Kind = Parameters<ReturnType<typeof useChange<'strike'>>['mutate']>[0]['kind'];

interface Props {
  job: Job;
  kind: Kind;
  record: string | null;
  /** What is struck out, for whoever cannot see the line it stands in. */
  what: string;
  /** What goes with it. */
  warns?: string;
  children?: string;
}

/** Puts a slip right: it is struck out with a reason, and stays in the record. */
export function StrikeOut({ job, kind, record, what, warns = '', children = 'strike out' }: Props) {
  const [asking, setAsking] = useState(false);
  if (job.signed || job.abandoned || !record) return null;
  if (!asking) {
    return (
      <button
        type="button"
        className="take-back"
        aria-label={`${children}: ${what}`}
        onClick={() => setAsking(true)}
      >
        {children}
      </button>
    );
  }
  return <Reason job={job} kind={kind} record={record} warns={warns} onDone={() => setAsking(false)} />;
}

interface ReasonProps {
  job: Job;
  kind: Kind;
  record: string;
  warns: string;
  onDone: () => void;
}

/** Striking out asks for the reason. */
export function Reason({ job, kind, record, warns, onDone }: ReasonProps) {
  const [reason, setReason] = useState('');
  const strike = useChange('strike', job.number);
  return (
    <form
      className="strike-form"
      onSubmit={(event) => {
        event.preventDefault();
        strike.mutate({ kind, record, reason }, { onSuccess: onDone });
      }}
    >
      <TextField
        autoFocus
        label={`Why is it struck out?${warns ? ` ${warns}` : ''}`}
        value={reason}
        maxLength={300}
        onChange={setReason}
      />
      <ProblemNote error={strike.error} />
      <div className="choices">
        <Button type="submit" variant="outline-primary" disabled={strike.isPending}>
          Strike out
        </Button>
        <button type="button" className="tool" onClick={onDone}>
          Leave it
        </button>
      </div>
    </form>
  );
}
