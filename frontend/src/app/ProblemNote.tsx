import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { ApiError, type Problem } from '../api/client';
import { TextField } from './TextField';
import { useIntoView } from './useIntoView';
import { capital } from './words';

interface Props {
  error: Error | null;
  /** Take another reading of what was typed. */
  onSuggestion?: (typed: string) => void;
  /** Say that it is meant as typed, with the reason where one is wanted. */
  onConfirm?: (reason?: string) => void;
}

/** The one way an error is shown: the field, what is wrong, what was expected, and what can be done. */
export function ProblemNote({ error, onSuggestion, onConfirm }: Props) {
  const ref = useIntoView<HTMLDivElement>(error);
  if (!error) return null;
  if (!(error instanceof ApiError)) {
    return (
      <div className="problem" role="alert" ref={ref}>
        <strong>{error.message}</strong>
      </div>
    );
  }
  const { details } = error;
  return (
    <div className="problem" role="alert" ref={ref}>
      <strong>{details.field ? `${capital(details.field)}: ${details.problem}` : error.message}</strong>
      {details.hint && <span> {details.hint}</span>}
      <Reasons details={details} />
      {onSuggestion && details.suggestions.length > 0 && (
        <div className="choices">
          {details.suggestions.map((s) => (
            <Button key={s.typed} variant="outline-primary" onClick={() => onSuggestion(s.typed)}>
              It is {s.meaning}
            </Button>
          ))}
        </div>
      )}
      {details.code === 'unlikely' && onConfirm && (
        <Confirm key={details.problem} wanted={details.reason_wanted} onConfirm={onConfirm} />
      )}
    </div>
  );
}

/** Why, and what to do where somebody else has changed the same, or is signed in. */
function Reasons({ details }: { details: Problem }) {
  return (
    <>
      {details.reasons.length > 0 && (
        <ul>
          {details.reasons.map((reason) => (
            <li key={reason}>{reason}</li>
          ))}
        </ul>
      )}
      {details.code === 'conflict' && <p>The sheet now shows their work. Look, then save yours again.</p>}
      {details.code === 'person' && (
        <Button variant="outline-primary" onClick={() => window.location.reload()}>
          Load the page anew
        </Button>
      )}
    </>
  );
}

interface ConfirmProps {
  /** It is not kept without a reason. */
  wanted: boolean;
  onConfirm: (reason?: string) => void;
}

function Confirm({ wanted, onConfirm }: ConfirmProps) {
  const [reason, setReason] = useState('');
  return (
    <div className="choices">
      {wanted && <TextField label="Why it is meant" value={reason} maxLength={200} onChange={setReason} />}
      <Button
        variant="outline-secondary"
        disabled={wanted && !reason.trim()}
        onClick={() => onConfirm(wanted ? reason : undefined)}
      >
        It is meant as typed
      </Button>
    </div>
  );
}
