import { Button } from 'react-bootstrap';
import { ApiError, type Problem } from '../api/client';
import { capital } from './words';

interface Props {
  error: Error | null;
  /** Take another reading of what was typed. */
  onSuggestion?: (typed: string) => void;
  /** Say that it is meant as typed. */
  onConfirm?: () => void;
}

/** The one way an error is shown: the field, what is wrong, what was expected, and what can be done. */
export function ProblemNote({ error, onSuggestion, onConfirm }: Props) {
  if (!error) return null;
  const details: Problem | null = error instanceof ApiError ? error.details : null;
  return (
    <div className="problem" role="alert">
      <strong>{details?.field ? `${capital(details.field)}: ${details.problem}` : error.message}</strong>
      {details?.hint && <span> {details.hint}</span>}
      {details && details.reasons.length > 0 && (
        <ul>
          {details.reasons.map((reason) => (
            <li key={reason}>{reason}</li>
          ))}
        </ul>
      )}
      {details?.code === 'conflict' && <p>The sheet now shows their work. Look, then save yours again.</p>}
      {details?.code === 'unlikely' && onConfirm && (
        <div className="choices">
          {onSuggestion &&
            details.suggestions.map((s) => (
              <Button key={s.typed} variant="outline-primary" onClick={() => onSuggestion(s.typed)}>
                It is {s.meaning}
              </Button>
            ))}
          <Button variant="outline-secondary" onClick={onConfirm}>
            It is meant as typed
          </Button>
        </div>
      )}
    </div>
  );
}
