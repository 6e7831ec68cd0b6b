import { useState } from 'react';
import type { Job, Setting } from '../../api/client';
import { WorkingLink } from '../../app/WorkingLink';
import { StrikeOut } from '../job/StrikeOut';

const TRIES_SHOWN = 4;

/** The tries at a gap, the newest always in sight. */
export function Tries({ job, setting }: { job: Job; setting: Setting }) {
  const [all, setAll] = useState(false);
  if (!setting.tries.length) return null;
  const one = setting.gaps.length === 1;
  const shown = all ? setting.tries : setting.tries.slice(-TRIES_SHOWN);
  const hidden = setting.tries.length - shown.length;
  return (
    <table className="ruled tries">
      <caption className={hidden ? '' : 'visually-hidden'}>
        {hidden ? (
          <button type="button" className="fold" onClick={() => setAll(true)}>
            {hidden} earlier tries ▾
          </button>
        ) : (
          'Tries at the gap'
        )}
      </caption>
      <thead>
        <tr>
          <th scope="col">Try</th>
          <th scope="col">Set by</th>
          {one && <th scope="col">Checked</th>}
          <th scope="col">{one ? 'Gap' : `Gaps (${job.unit})`}</th>
          <th scope="col">Next</th>
        </tr>
      </thead>
      <tbody>
        {shown.map((t) => (
          <TryRow key={t.number} job={job} made={t} one={one} />
        ))}
      </tbody>
    </table>
  );
}

interface RowProps {
  job: Job;
  made: Setting['tries'][number];
  /** One gap alone is set: what was checked has a column of its own. */
  one: boolean;
}

function TryRow({ job, made: t, one }: RowProps) {
  return (
    <tr className={t.struck_reason ? 'struck' : ''}>
      <th scope="row">{t.number}</th>
      <td>{t.set_by}</td>
      {one && <td>{t.checked}</td>}
      <td className="number">
        {t.working ? (
          <WorkingLink working={t.working}>{one ? `${t.gap} ${job.unit}` : t.gap}</WorkingLink>
        ) : (
          t.gap
        )}
      </td>
      <td>
        {t.next}
        {t.opened && ', opened for it'}
        {t.struck_reason ? (
          <em> {t.struck_reason}</em>
        ) : (
          <>
            {' '}
            <StrikeOut
              job={job}
              kind="try"
              record={t.id}
              what={`try ${t.number}`}
              warns="What was proved after it is to be proved again."
            />
          </>
        )}
      </td>
    </tr>
  );
}
