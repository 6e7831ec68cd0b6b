import { useId } from 'react';
import type { Wear } from '../api/client';

const WIDTH = 760;
const HEIGHT = 360;
const LEFT = 70;
const BOTTOM = 58;
const TOP = 16;
const RIGHT = 18;

/** Sizes of one part against hours since it was fitted: bars of uncertainty, band, limit, next overhaul, earlier lives faint. */
export function WearChart({ wear, unit }: { wear: Wear; unit: string }) {
  const inside = useId();
  const everything = [...wear.points, ...wear.lives.flat()];
  if (!everything.length) return <p className="quiet">No size of this part is on record yet.</p>;
  const last = Math.max(...everything.map((p) => p.hours), ...wear.band.map((b) => b.hours), 100);
  const ticks = wear.ticks.map((t) => t.mm);
  const sizes = [
    ...everything.map((p) => p.mm),
    ...ticks,
    ...(wear.limit_mm === null ? [] : [wear.limit_mm]),
  ];
  const [low, high] = [Math.min(...sizes), Math.max(...sizes)];
  const x = (hours: number) => LEFT + ((WIDTH - LEFT - RIGHT) * hours) / last;
  const y = (mm: number) => HEIGHT - BOTTOM - ((HEIGHT - BOTTOM - TOP) * (mm - low)) / (high - low || 1);
  const line = (points: { hours: number; mm: number }[]) =>
    points.map((p, i) => `${i ? 'L' : 'M'}${x(p.hours).toFixed(1)} ${y(p.mm).toFixed(1)}`).join(' ');
  const band = [
    ...wear.band.map((b) => ({ hours: b.hours, mm: b.high_mm })),
    ...wear.band.map((b) => ({ hours: b.hours, mm: b.low_mm })).reverse(),
  ];
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="wear-chart" role="img" aria-label={said(wear, unit)}>
      {wear.ticks.map((t) => (
        <g key={t.mm}>
          <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(t.mm)} y2={y(t.mm)} className="grid-line" />
          <text x={LEFT - 8} y={y(t.mm) + 5} textAnchor="end" className="note">
            {t.text}
          </text>
        </g>
      ))}
      {hourTicks(last).map((h) => (
        <text key={h} x={x(h)} y={HEIGHT - 36} textAnchor="middle" className="note">
          {h.toLocaleString('en').replace(',', ' ')}
        </text>
      ))}
      <text x={WIDTH - RIGHT} y={HEIGHT - 10} textAnchor="end" className="note">
        hours since fitted, at the present duty
      </text>
      <clipPath id={inside}>
        <rect x={LEFT} y={TOP} width={WIDTH - LEFT - RIGHT} height={HEIGHT - BOTTOM - TOP} />
      </clipPath>
      <g clipPath={`url(#${inside})`}>
        {band.length > 0 && <path d={`${line(band)} Z`} className="band" />}
        {wear.band.length > 0 && <path d={line(wear.band)} className="forecast-line" />}
      </g>
      {wear.limit_mm !== null && (
        <>
          <line
            x1={LEFT}
            x2={WIDTH - RIGHT}
            y1={y(wear.limit_mm)}
            y2={y(wear.limit_mm)}
            className="limit-line"
          />
          <text x={LEFT + 8} y={y(wear.limit_mm) - 6} className="limit-text">
            limit {wear.limit_text}
          </text>
        </>
      )}
      {wear.planned_h !== null && (
        <g>
          <line
            x1={x(wear.planned_h)}
            x2={x(wear.planned_h)}
            y1={TOP}
            y2={HEIGHT - BOTTOM}
            className="planned-line"
          />
          <text x={x(wear.planned_h) - 6} y={TOP + 14} textAnchor="end" className="planned-text">
            next overhaul
          </text>
        </g>
      )}
      {wear.lives.map((life, i) => (
        <g key={i} className="past-life">
          <path d={line(life)} className="life-line" />
          {life.map((p, j) => (
            <circle key={j} cx={x(p.hours)} cy={y(p.mm)} r="4" />
          ))}
        </g>
      ))}
      {wear.points.map((p, i) => (
        <g key={i}>
          <line
            x1={x(p.hours)}
            x2={x(p.hours)}
            y1={y(p.mm - p.expanded_mm)}
            y2={y(p.mm + p.expanded_mm)}
            className="doubt-bar"
          />
          <circle cx={x(p.hours)} cy={y(p.mm)} r="6" className={p.job ? 'size-dot' : 'size-dot hollow'} />
        </g>
      ))}
      <path d={`M${LEFT} ${TOP} V${HEIGHT - BOTTOM} H${WIDTH - RIGHT}`} className="frame-line" />
    </svg>
  );
}

function hourTicks(last: number): number[] {
  const step =
    [100, 200, 500, 1000, 2000, 5000, 10_000, 20_000, 50_000].find((s) => last / s <= 8) ?? 100_000;
  return Array.from({ length: Math.floor(last / step) + 1 }, (_, i) => i * step);
}

function said(wear: Wear, unit: string): string {
  const sizes = wear.points.map((p) => `${p.text} at ${Math.round(p.hours)} h`).join(', ');
  return `${wear.name}: ${sizes} (${unit}). ${wear.forecast?.sentence ?? ''}`;
}
