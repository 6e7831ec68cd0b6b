import { TextField } from './TextField';

interface Props<S extends string> {
  label: string;
  typed: string;
  onType: (text: string) => void;
  sort: S;
  onSort: (sort: S) => void;
  /** What a list can be in order of, and what that is called. */
  orders: Record<S, string>;
}

/** Words to find lines of a list by, and its order. */
export function SearchRow<S extends string>({ label, typed, onType, sort, onSort, orders }: Props<S>) {
  return (
    <div className="search-row">
      <TextField label={label} value={typed} maxLength={80} onChange={onType} />
      <label className="field">
        In order of
        <select value={sort} onChange={(event) => onSort(event.target.value as S)}>
          {Object.entries<string>(orders).map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}
