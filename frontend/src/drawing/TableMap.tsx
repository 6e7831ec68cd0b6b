import { useId } from 'react';
import type { TableMap as Drawn } from '../api/client';
import { Hatch } from './GapBar';

const WIDTH = 560;
const HEIGHT = 330;
const BOX = { left: 62, right: 552, top: 14, bottom: 284 };
const LINE = 20;
const HALF_NAME = 78;

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
  const [duty = 1, at = 0] = map.duty;
  const point = { x: x(Math.log10(Math.max(duty, 0.3))), y: y(at) };
  const way = map.way.length > 1 ? [map.way[0], map.way.at(-1)] : [];
  const ends = way.map(([v = 1, t = 0] = []) => ({ x: x(Math.log10(Math.max(v, 0.3))), y: y(t) }));
  const labels = apart(
    places.map((p) => ({ ...p, x: (p.left + p.right) / 2, y: (p.top + p.bottom) / 2 })),
    [point, ...ends],
  );
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
      {map.way.length > 1 && (
        <polyline
          points={map.way.map(([v = 1, t = 0]) => `${x(Math.log10(Math.max(v, 0.3)))},${y(t)}`).join(' ')}
          className="duty-way"
        />
      )}
      {way[0] && <WayEnd point={way[0]} name="cold" x={x} y={y} />}
      {way[1] && <WayEnd point={way[1]} name="hot" x={x} y={y} />}
      <circle cx={point.x} cy={point.y} r="8" className="duty-point" />
      <path d={`M${point.x} ${point.y - 16} v32 M${point.x - 16} ${point.y} h32`} className="duty-cross" />
    </svg>
  );
}

interface EndProps {
  point: number[];
  name: string;
  x: (value: number) => number;
  y: (value: number) => number;
}

/** An end of the duty's range, named. */
function WayEnd({ point: [viscosity = 1, at = 0], name, x, y }: EndProps) {
  const [px, py] = [x(Math.log10(Math.max(viscosity, 0.3))), y(at)];
  return (
    <g>
      <circle cx={px} cy={py} r="5" className="duty-end" />
      <text x={px} y={py - 10} textAnchor="middle" className="duty-name">
        {name}
      </text>
    </g>
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

interface Spot {
  x: number;
  y: number;
}

interface Room extends Spot {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** Names that would lie on one another, or on the duty, move to the nearest line that is free, inside their region if one is. */
function apart(wanted: Room[], taken: Spot[]): Spot[] {
  const placed: Spot[] = [...taken];
  for (const one of wanted) {
    const free = (at: Spot) => !placed.some((p) => Math.abs(p.x - at.x) < 130 && Math.abs(p.y - at.y) < LINE);
    const across = [one.x, one.left + HALF_NAME, one.right - HALF_NAME].map((x) =>
      Math.min(Math.max(x, BOX.left + HALF_NAME), BOX.right - HALF_NAME),
    );
    const spots = [0, 1, -1, 2, -2, 3, -3, 4, -4].flatMap((n) =>
      across.map((x) => ({ x, y: one.y + n * LINE })),
    );
    const inside = spots.filter(({ y }) => y > one.top + 12 && y < one.bottom - 4);
    placed.push(inside.find(free) ?? spots.find(free) ?? one);
  }
  return placed.slice(taken.length);
}

function described(map: Drawn): string {
  const rows = map.regions.map((r) => {
    const state = r.chosen ? ', used' : r.matches ? ', matches, too' : '';
    return `${r.setting} ${r.clearance}${state}`;
  });
  const range = map.way.length > 1 ? ' Its range from cold start to hot running is drawn.' : '';
  return `Clearance table as a map. The pump works at ${map.duty.join(' mm²/s and ')} °C.${range} Rows: ${rows.join('; ')}.`;
}
