import { useId } from 'react';
import type { Ask } from '../../api/client';
import type { Draft } from './useDraft';

interface Props {
  ask: Ask;
  draft: Draft;
}

/** One thing that is asked of a sheet, with the unit of a bare number, and what is wrong with it. */
export function AskField({ ask, draft }: Props) {
  const id = useId();
  const value = draft.typed.fields[ask.path] ?? '';
  const problem = draft.problems.get(ask.path);
  const wrong = problem !== undefined && !problem.missing;
  const described = `${id}-said`;
  const said = wrong ? `${problem.problem} ${problem.hint}` : ask.hint;
  const shared = {
    id,
    value,
    'aria-describedby': said ? described : undefined,
    'aria-invalid': wrong || undefined,
    'aria-required': ask.required || undefined,
    'data-path': ask.path,
  };
  return (
    <div className={`ask${wrong ? ' is-wrong' : ''}`}>
      <label htmlFor={id}>
        {ask.label} {ask.unit && <small>{ask.unit}</small>}
        {ask.required && !value && <small className="wanted"> needed</small>}
      </label>
      {ask.kind === 'choice' && ask.many === 'one' ? (
        <select {...shared} onChange={(event) => draft.put(ask.path, event.target.value)}>
          <option value="">not said</option>
          {ask.choices
            .filter((one) => one.key !== 'unsaid')
            .map((one) => (
              <option key={one.key} value={one.key}>
                {one.name}
              </option>
            ))}
        </select>
      ) : ask.kind === 'yes' ? (
        <select {...shared} onChange={(event) => draft.put(ask.path, event.target.value)}>
          <option value="">not said</option>
          <option value="yes">yes</option>
          <option value="no">no</option>
        </select>
      ) : (
        <input
          {...shared}
          type={ask.kind === 'day' ? 'date' : 'text'}
          list={ask.choices.length > 0 ? `${id}-list` : undefined}
          autoComplete="off"
          maxLength={2000}
          onChange={(event) => draft.put(ask.path, event.target.value)}
        />
      )}
      {ask.choices.length > 0 && !(ask.kind === 'choice' && ask.many === 'one') && (
        <datalist id={`${id}-list`}>
          {ask.choices.map((one) => (
            <option key={one.key} value={one.name} />
          ))}
        </datalist>
      )}
      {said && (
        <p id={described} className={wrong ? 'said wrong' : 'said'}>
          {said}
        </p>
      )}
    </div>
  );
}
