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
  const said = wrong ? `${problem.problem} ${problem.hint}` : ask.hint;
  return (
    <div className={`ask${wrong ? ' is-wrong' : ''}`}>
      <label htmlFor={id}>
        {ask.label} {ask.unit && <small>{ask.unit}</small>}
        {ask.required && !value && <small className="wanted"> needed</small>}
      </label>
      <Control
        ask={ask}
        id={id}
        value={value}
        wrong={wrong}
        described={said ? `${id}-said` : undefined}
        onPut={(text) => draft.put(ask.path, text)}
      />
      {said && (
        <p id={`${id}-said`} className={wrong ? 'said wrong' : 'said'}>
          {said}
        </p>
      )}
    </div>
  );
}

interface ControlProps {
  ask: Ask;
  id: string;
  value: string;
  wrong: boolean;
  described: string | undefined;
  onPut: (text: string) => void;
}

const YES = [
  { key: 'yes', name: 'yes' },
  { key: 'no', name: 'no' },
];

/** A choice where nothing else can be entered, else a line to type on. */
function Control({ ask, id, value, wrong, described, onPut }: ControlProps) {
  const shared = {
    id,
    value,
    'aria-describedby': described,
    'aria-invalid': wrong || undefined,
    'aria-required': ask.required || undefined,
    'data-path': ask.path,
  };
  const chosen = ask.kind === 'yes' ? YES : ask.choices;
  if (ask.kind === 'yes' || (ask.kind === 'choice' && ask.many === 'one'))
    return (
      <select {...shared} onChange={(event) => onPut(event.target.value)}>
        <option value="">not said</option>
        {chosen
          .filter((one) => one.key !== 'unsaid')
          .map((one) => (
            <option key={one.key} value={one.key}>
              {one.name}
            </option>
          ))}
      </select>
    );
  return (
    <>
      <input
        {...shared}
        type={ask.kind === 'day' ? 'date' : 'text'}
        list={chosen.length > 0 ? `${id}-list` : undefined}
        autoComplete="off"
        maxLength={2000}
        onChange={(event) => onPut(event.target.value)}
      />
      {chosen.length > 0 && (
        <datalist id={`${id}-list`}>
          {chosen.map((one) => (
            <option key={one.key} value={one.name} />
          ))}
        </datalist>
      )}
    </>
  );
}
