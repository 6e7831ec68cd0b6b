import { useId } from 'react';
import type { TableMap as Drawn } from '../api/client';
import { Hatch } from './GapBar';

const WIDTH = 560;
const HEIGHT = 330;
const BOX = { left: 62, right: 552, top: 14, bottom: 284 };
const LINE = 20;

/** The clearance table as a map: what no row covers is hatched, where rows overlap both lie over one another. */
export function TableMap({ map }: { map: Drawn }) {
  const hole = useId();
  const x = scale(map.mm2_s.map(Math.log10), BOX.left, BOX.right);
  const y = scale(map.c, BOX.bottom, BOX.top);
  const places = map.regions.map((r) => ({
    region: r,
    left: x(Math.log10(r.mm2_s[0] ?? 1)),
    right: x(Math.log10(r.mm2_s[1] ?? 1)),
    top: y(r.c[1] ?? 0),
    bottom: y(r.c[0] ?? 0),
  }));
  const labels = apart(places.map((p) => ({ x: (p.left + p.right) / 2, y: (p.top + p.bottom) / 2 })));
  const [duty = 1, at = 0] = map.duty;
  const point = { x: x(Math.log10(Math.max(duty, 0.3))), y: y(at) };
  const drawn = [...places.keys()].sort(
    (a, b) => Number(map.regions[a]?.chosen) - Number(map.regions[b]?.chosen),
  );
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="table-map" role="img" aria-label={described(map)}>
      <Hatch id={hole} />
      <rect
        x={BOX.left}
        y={BOX.top}
        width={BOX.right - BOX.left}
        height={BOX.bottom - BOX.top}
        className="metal"
        fill={`url(#${hole})`}
      />
      {places.map(({ left, right, top, bottom }, i) => (
        <rect key={i} x={left} y={top} width={right - left} height={bottom - top} className="region-ground" />
      ))}
      {drawn.map((i) => {
        const p = places[i];
        if (!p) return null;
        const { region, left, right, top, bottom } = p;
        const state = region.chosen ? 'chosen' : region.matches ? 'matches' : 'misses';
        return (
          <g key={i} className={`region is-${state}`}>
            <rect x={left} y={top} width={right - left} height={bottom - top} className="region-area" />
            <path d={edges(p)} className="region-edge" />
          </g>
        );
      })}
      {map.mm2_s_ticks.map((t) => (
        <g key={t.value}>
          <path d={`M${x(Math.log10(t.value))} ${BOX.bottom} v6`} className="frame-line" />
          <text x={x(Math.log10(t.value))} y={BOX.bottom + 22} textAnchor="middle" className="note">
            {t.text}
          </text>
        </g>
      ))}
      {map.c_ticks.map((t) => (
        <g key={t.value}>
          <path d={`M${BOX.left} ${y(t.value)} h-6`} className="frame-line" />
          <text x={BOX.left - 9} y={y(t.value) + 5} textAnchor="end" className="note">
            {t.text}
          </text>
        </g>
      ))}
      <text x={BOX.right} y={HEIGHT - 4} textAnchor="end" className="note">
        viscosity, mm²/s
      </text>
      {places.map(({ region }, i) => (
        <text
          key={i}
          x={labels[i]?.x}
          y={labels[i]?.y}
          textAnchor="middle"
          className={`region-name${region.chosen ? ' chosen' : ''}`}
        >
          {region.setting} {region.clearance}
        </text>
      ))}
      <circle cx={point.x} cy={point.y} r="8" className="duty-point" />
      <path d={`M${point.x} ${point.y - 16} v32 M${point.x - 16} ${point.y} h32`} className="duty-cross" />
    </svg>
  );
}

function scale(span: number[], from: number, to: number): (value: number) => number {
  const [low = 0, high = 1] = span;
  return (value) => from + ((value - low) / (high - low)) * (to - from);
}

interface Place {
  region: Drawn['regions'][number];
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** Only the ends the row really has are drawn as edges. */
function edges({ region, left, right, top, bottom }: Place): string {
  const [thin, thick] = region.open_mm2_s;
  const [cold, hot] = region.open_c;
  return [
    thin ? '' : `M${left} ${top} V${bottom}`,
    thick ? '' : `M${right} ${top} V${bottom}`,
    cold ? '' : `M${left} ${bottom} H${right}`,
    hot ? '' : `M${left} ${top} H${right}`,
  ].join(' ');
}

/** Names that would lie on one another move down a line at a time. */
function apart(wanted: { x: number; y: number }[]): { x: number; y: number }[] {
  const placed: { x: number; y: number }[] = [];
  for (const one of wanted) {
    let y = one.y;
    while (placed.some((p) => Math.abs(p.x - one.x) < 150 && Math.abs(p.y - y) < LINE)) y += LINE;
    placed.push({
      x: Math.min(Math.max(one.x, BOX.left + 74), BOX.right - 74),
      y: Math.min(y, BOX.bottom - 4),
    });
  }
  return placed;
}

function described(map: Drawn): string {
  const rows = map.regions.map((r) => {
    const state = r.chosen ? ', used' : r.matches ? ', matches, too' : '';
    return `${r.setting} ${r.clearance}${state}`;
  });
  return `Clearance table as a map. The pump works at ${map.duty.join(' mm²/s and ')} °C. Rows: ${rows.join('; ')}.`;
}
