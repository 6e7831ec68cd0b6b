import { useQueryClient } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { client, type Kept } from '../api/client';
import { ProblemNote } from '../app/ProblemNote';
import { day } from '../app/time';
import { useTyped } from '../app/useTyped';
import type { Entered } from '../app/works';

/** Out of use, or back into it; what was measured with a gauge stands. */
function useRetire() {
  const cache = useQueryClient();
  return useTyped(
    ({ tag, ...body }: { tag: string; retired: boolean } & Entered) =>
      client.POST('/api/gauges/{tag}/retire', {
        params: { path: { tag }, query: { unit: body.unit } },
        body,
      }),
    () => {
      void cache.invalidateQueries({ queryKey: ['gauges'] });
      void cache.invalidateQueries({ queryKey: ['job'] });
    },
  );
}

interface CabinetProps {
  gauges: Kept[];
  lead: boolean;
  onCertificate: (gauge: Kept) => void;
}

/** Gauges with their certificates. */
export function Cabinet({ gauges, lead, onCertificate }: CabinetProps) {
  const retire = useRetire();
  return (
    <>
      <ProblemNote error={retire.error} />
      <table className="ruled">
        <thead>
          <tr>
            <th scope="col">Gauge</th>
            <th scope="col">Step</th>
            <th scope="col">U (k)</th>
            <th scope="col">Calibrated</th>
            <th scope="col">Due</th>
          </tr>
        </thead>
        <tbody>
          {gauges.map((g) => (
            <Row key={g.tag} gauge={g}>
              {lead && !g.retired && (
                <button type="button" className="take-back" onClick={() => onCertificate(g)}>
                  new certificate
                </button>
              )}
              {lead && (
                <button
                  type="button"
                  className="take-back"
                  disabled={retire.isPending}
                  aria-label={g.retired ? `Take ${g.tag} back into use` : `Retire ${g.tag}`}
                  onClick={() => retire.mutate({ tag: g.tag, retired: !g.retired })}
                >
                  {g.retired ? 'back into use' : 'retire'}
                </button>
              )}
            </Row>
          ))}
        </tbody>
      </table>
    </>
  );
}

function Row({ gauge: g, children }: { gauge: Kept; children: ReactNode }) {
  const late = g.overdue && !g.retired;
  return (
    <tr>
      <th scope="row">
        {g.tag}{' '}
        <small>
          {g.kind}, {g.range}
          {g.certificate ? `, certificate ${g.certificate}` : ''}
        </small>
        {g.leaves.length > 0 && <small>leaves {g.leaves.join(' · ')}</small>}
        {g.retired && <small>retired on {day(g.retired)}</small>}
        <span className="acts">{children}</span>
      </th>
      <td className="number">{g.resolution}</td>
      <td className="number">
        {g.expanded} ({g.k})
      </td>
      <td>{day(g.calibrated)}</td>
      <td className={late ? 'warning' : ''}>
        {day(g.due)}
        {late ? ', out of date' : ''}
      </td>
    </tr>
  );
}
