import { scaleLinear } from 'd3-scale';
import type { Setting } from '../api/client';
import { standing } from '../bench/job/standing';

const WIDTH = 512;
const HEIGHT = 136;
const LEFT = 56;
const TOP = 10;
const BOTTOM = 106;
const SHOWN = 10;

/** The checks one after another, each with its doubt, on their way into the window. */
export function TriesPlot({ setting, unit }: { setting: Setting; unit: string }) {
  const tries = standing(setting).slice(-SHOWN);
  const lows = tries.map((t) => t.gap_mm - t.expanded_mm);
  const highs = tries.map((t) => t.gap_mm + t.expanded_mm);
  const low = Math.min(setting.low_mm, ...lows);
  const high = Math.max(setting.high_mm, ...highs);
  const room = 0.08 * (high - low);
  const y = scaleLinear([low - room, high + room], [BOTTOM, TOP]);
  const step = (WIDTH - LEFT) / tries.length;
  const x = (index: number) => LEFT + (index + 0.5) * step;
  const said = tries.map((t) => `try ${t.number} ${t.gap}`).join(', ');
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="tries-plot"
      role="img"
      aria-label={`Window ${setting.low} to ${setting.high} ${unit}: ${said}.`}
    >
      <rect
        x={LEFT}
        y={y(setting.high_mm)}
        width={WIDTH - LEFT}
        height={y(setting.low_mm) - y(setting.high_mm)}
        className="window"
      />
      <path d={`M${LEFT} ${y(setting.target_mm)} H${WIDTH}`} className="axis" />
      <text x={LEFT - 6} y={y(setting.high_mm) + 5} textAnchor="end" className="window-text">
        {setting.high}
      </text>
      <text x={LEFT - 6} y={y(setting.low_mm) + 5} textAnchor="end" className="window-text">
        {setting.low}
      </text>
      <polyline points={tries.map((t, i) => `${x(i)},${y(t.gap_mm)}`).join(' ')} className="life-line" />
      {tries.map((t, i) => (
        <g key={t.number}>
          <path
            d={`M${x(i)} ${y(t.gap_mm - t.expanded_mm)} V${y(t.gap_mm + t.expanded_mm)}`}
            className="doubt-bar"
          />
          <circle
            cx={x(i)}
            cy={y(t.gap_mm)}
            r="6"
            className={i === tries.length - 1 ? 'size-dot' : 'size-dot hollow'}
          />
          <text x={x(i)} y={BOTTOM + 24} textAnchor="middle" className="note">
            {`${t.number}: ${t.gap}`}
          </text>
        </g>
      ))}
    </svg>
  );
}
