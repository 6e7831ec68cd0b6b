import { useQuery, type QueryKey, type UseQueryOptions } from '@tanstack/react-query';
import { useId, type ReactNode } from 'react';
import type { Page } from './Listed';
import { Loaded } from './Loading';
import { TextField } from './TextField';
import { useSearch } from './useSearch';

const SHOWN = 8;

interface Props<T, K extends QueryKey> {
  /** What is chosen, as a heading. */
  label: string;
  find: string;
  what: string;
  ask: (sought: string) => UseQueryOptions<Page<T>, Error, Page<T>, K>;
  keyOf: (line: T) => string;
  isTaken?: (line: T) => boolean;
  value: string;
  onChoose: (key: string, line: T) => void;
  children: (line: T) => ReactNode;
}

/** One of many, found by words: the first few that have them, to choose from. Typing renders nothing else. */
export function Finder<T, K extends QueryKey>({
  label,
  find,
  what,
  ask,
  keyOf,
  isTaken = () => false,
  value,
  onChoose,
  children,
}: Props<T, K>) {
  const name = useId();
  const { typed, setTyped, sought } = useSearch();
  const found = useQuery(ask(sought));
  // Enter sends no form around it, with what was chosen before: it chooses what alone was found.
  const choose = () => {
    const [line, ...more] =
      typed.trim() === sought && !found.isPlaceholderData ? (found.data?.lines ?? []) : [];
    if (line && !more.length && !isTaken(line)) onChoose(keyOf(line), line);
  };
  return (
    <fieldset className="finder">
      <legend>{label}</legend>
      <TextField label={find} value={typed} maxLength={80} onChange={setTyped} onEnter={choose} />
      <Loaded query={found} what={what}>
        {({ lines, more }) => (
          <div className="pick-list">
            {lines.slice(0, SHOWN).map((line) => (
              <label key={keyOf(line)} className={isTaken(line) ? 'taken' : ''}>
                <input
                  type="radio"
                  name={name}
                  value={keyOf(line)}
                  checked={keyOf(line) === value}
                  disabled={isTaken(line)}
                  onChange={() => onChoose(keyOf(line), line)}
                />
                <span>{children(line)}</span>
              </label>
            ))}
            {lines.length === 0 && (
              <p className="quiet">{sought ? `Nothing with “${sought}” in it.` : 'There is none yet.'}</p>
            )}
            {(more || lines.length > SHOWN) && <p className="quiet">There are more; a word narrows them.</p>}
          </div>
        )}
      </Loaded>
    </fieldset>
  );
}
