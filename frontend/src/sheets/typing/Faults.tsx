import type { AskedGrid } from '../../api/client';
import { wordsOf } from './gridLines';
import type { Draft } from './useDraft';

interface Props {
  grid: AskedGrid;
  draft: Draft;
}

const SHOWN = 12;

/** What is wrong or remarkable in a table, in words, each a way to its cell. */
export function Faults({ grid, draft }: Props) {
  const of = (path: string) =>
    path === grid.path || path.startsWith(`${grid.path}.`) || path.startsWith(`${grid.path}[`);
  const wrong = draft.state.problems.filter((one) => of(one.path) && !one.missing);
  const missing = draft.state.problems.filter((one) => of(one.path) && one.missing);
  const remarks = draft.state.remarks.filter((one) => of(one.path));
  if (!wrong.length && !missing.length && !remarks.length) return null;
  return (
    <ul className="faults" role="status">
      {wrong.slice(0, SHOWN).map((one) => (
        <li key={one.path} className="wrong">
          <b>{wordsOf(grid, one.path)}:</b> {one.problem} {one.hint}
        </li>
      ))}
      {wrong.length > SHOWN && <li>and {wrong.length - SHOWN} more.</li>}
      {remarks.slice(0, SHOWN).map((one) => (
        <li key={one.path} className="odd">
          <b>{wordsOf(grid, one.path)}:</b> {one.text}
        </li>
      ))}
      {missing.length > 0 && (
        <li>
          Not there yet:{' '}
          {missing
            .slice(0, 8)
            .map((one) => wordsOf(grid, one.path))
            .join('; ')}
          .
        </li>
      )}
    </ul>
  );
}
