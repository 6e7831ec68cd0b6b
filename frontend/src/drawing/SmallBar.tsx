import { useId } from 'react';
import type { Bar } from '../api/client';
import { Hatch } from './GapBar';

const WIDTH = 150;
const HEIGHT = 22;

/** A gap bar for a line of a list: from new at the left to the limit at the right, where metal begins; beyond it is past it. */
export function SmallBar({ bar, unit }: { bar: Bar; unit: string }) {
  const hatch = useId();
  const [a = 0, b = 0] = bar.new;
  const fresh = bar.limit > b ? a : b;
  const span = bar.limit - fresh || 1;
  const x = (mm: number) => Math.min(Math.max(4 + 112 * ((mm - fresh) / span), 2), WIDTH - 2);
  const doubt = Math.max(Math.abs(x(bar.mm + bar.expanded_mm) - x(bar.mm)), 1.5);
  const state = bar.measured ? bar.verdict || 'no verdict' : 'new, not measured';
  const said = `${bar.name}: ${bar.text} ${unit}, limit ${bar.limit_text}, ${state}${bar.left ? `, ${bar.left}` : ''}`;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="small-bar" role="img" aria-label={said}>
      <title>{said}</title>
      <Hatch id={hatch} scale={0.7} />
      <rect x="1" y="2" width={WIDTH - 2} height={HEIGHT - 4} className="slot framed" />
      <rect
        x={x(bar.limit)}
        y="2"
        width={WIDTH - 1 - x(bar.limit)}
        height={HEIGHT - 4}
        className="metal"
        fill={`url(#${hatch})`}
      />
      {bar.later !== null && (
        <g className="later">
          <line x1={x(bar.mm)} x2={x(bar.later)} y1={HEIGHT / 2} y2={HEIGHT / 2} />
          <path d={`M${x(bar.later)} 6 v10`} />
        </g>
      )}
      {bar.measured && (
        <rect x={x(bar.mm) - doubt} y="5" width={2 * doubt} height={HEIGHT - 10} className="doubt" />
      )}
      <line
        x1={x(bar.mm)}
        x2={x(bar.mm)}
        y1="1"
        y2={HEIGHT - 1}
        className={bar.measured ? 'value' : 'value unmeasured'}
      />
    </svg>
  );
}
