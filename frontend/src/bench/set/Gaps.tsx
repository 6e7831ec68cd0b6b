import type { Held } from '../../api/client';
import { VerdictMark, verdictClass } from '../../drawing/VerdictMark';

/** Several numbers held against their windows at once: each with its place in the window and its verdict. */
export function Gaps({ gaps, unit }: { gaps: Held[]; unit: string }) {
  return (
    <table className="ruled gaps">
      <caption className="visually-hidden">Every gap against its window</caption>
      <thead>
        <tr>
          <th scope="col">Gap</th>
          <th scope="col">Window</th>
          <th scope="col">Checked</th>
          <th scope="col">
            <span className="visually-hidden">Verdict</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {rows(gaps).map((g) => (
          <tr key={g.key} className={g.derived ? 'derived' : ''}>
            <th scope="row">{g.name}</th>
            <td>
              {g.low} to {g.high}
            </td>
            <td className="number">
              {g.gap ? (
                <>
                  <b>{g.gap}</b> {unit}
                </>
              ) : (
                '–'
              )}
            </td>
            <td>
              {g.verdict && (
                <span className={verdictClass(g.verdict)}>
                  <VerdictMark verdict={g.verdict} size={22} />{' '}
                  {g.verdict === 'Keep' ? 'right' : g.verdict === 'Change' ? 'outside' : 'check again'}
                </span>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Before the first check, many places with one window say no more than one of them. */
function rows(gaps: Held[]): Held[] {
  const [first] = gaps;
  const isAlike =
    gaps.length > 4 && gaps.every((g) => !g.gap && g.low === first?.low && g.high === first.high);
  return isAlike && first ? [{ ...first, name: `each of ${gaps.length}` }] : gaps;
}
