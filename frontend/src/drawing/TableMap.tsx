import { scaleLinear } from 'd3-scale';
import { useId } from 'react';
import type { TableMap as Drawn } from '../api/client';
import { Hatch } from './GapBar';

const WIDTH = 560;
const HEIGHT = 330;
const BOX = { left: 62, right: 552, top: 14, bottom: 284 };
const LINE = 20;
const HALF_NAME = 78;
/** Thinner than this the map does not go. */
const THINNEST = 0.3;

interface Axes {
  /** Viscosity to the right, by its logarithm. */
  x: (mm2_s: number) => number;
  /** Temperature upwards. */
  y: (celsius: number) => number;
}

/** The clearance table as a map: what no row covers is hatched, where rows overlap both lie over one another. */
export function TableMap({ map }: { map: Drawn }) {
  const hole = useId();
  const axes = axesOf(map);
  const places = placesOf(map, axes);
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
      <Regions places={places} />
      <Ticks map={map} axes={axes} />
      <Names map={map} places={places} axes={axes} />
      <Duty map={map} axes={axes} />
    </svg>
  );
}

function axesOf(map: Drawn): Axes {
  const [thin = 1, thick = 10] = map.mm2_s;
  const [cold = 0, hot = 1] = map.c;
  const byLog = scaleLinear([thin, thick].map(Math.log10), [BOX.left, BOX.right]);
  return {
    x: (mm2_s) => byLog(Math.log10(Math.max(mm2_s, THINNEST))),
    y: scaleLinear([cold, hot], [BOX.bottom, BOX.top]),
  };
}

interface Place {
  region: Drawn['regions'][number];
  left: number;
  right: number;
  top: number;
  bottom: number;
}

const placesOf = (map: Drawn, { x, y }: Axes): Place[] =>
  map.regions.map((region) => ({
    region,
    left: x(region.mm2_s[0] ?? 1),
    right: x(region.mm2_s[1] ?? 1),
    top: y(region.c[1] ?? 0),
    bottom: y(region.c[0] ?? 0),
  }));

/** Rows as areas; the chosen one lies over the others. */
function Regions({ places }: { places: Place[] }) {
  const drawn = [...places].sort((a, b) => Number(a.region.chosen) - Number(b.region.chosen));
  return (
    <>
      {places.map(({ left, right, top, bottom }, i) => (
        <rect key={i} x={left} y={top} width={right - left} height={bottom - top} className="region-ground" />
      ))}
      {drawn.map((p, i) => {
        const { region, left, right, top, bottom } = p;
        const state = region.chosen ? 'chosen' : region.matches ? 'matches' : 'misses';
        return (
          <g key={i} className={`region is-${state}`}>
            <rect x={left} y={top} width={right - left} height={bottom - top} className="region-area" />
            <path d={edges(p)} className="region-edge" />
          </g>
        );
      })}
    </>
  );
}

function Ticks({ map, axes: { x, y } }: { map: Drawn; axes: Axes }) {
  return (
    <>
      {map.mm2_s_ticks.map((t) => (
        <g key={t.value}>
          <path d={`M${x(t.value)} ${BOX.bottom} v6`} className="frame-line" />
          <text x={x(t.value)} y={BOX.bottom + 22} textAnchor="middle" className="note">
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
    </>
  );
}

interface Spot {
  x: number;
  y: number;
}

const spotOf = ([mm2_s = 1, celsius = 0]: number[], { x, y }: Axes): Spot => ({ x: x(mm2_s), y: y(celsius) });

/** Both ends of the duty's range, cold first; none where it is one point. */
const endsOf = (map: Drawn, axes: Axes): Spot[] =>
  map.way.length > 1 ? [map.way[0] ?? [], map.way.at(-1) ?? []].map((end) => spotOf(end, axes)) : [];

interface NamesProps {
  map: Drawn;
  places: Place[];
  axes: Axes;
}

function Names({ map, places, axes }: NamesProps) {
  const rooms = places.map((p) => ({ ...p, x: (p.left + p.right) / 2, y: (p.top + p.bottom) / 2 }));
  const labels = apart(rooms, [spotOf(map.duty, axes), ...endsOf(map, axes)]);
  return places.map(({ region }, i) => (
    <text
      key={i}
      x={labels[i]?.x}
      y={labels[i]?.y}
      textAnchor="middle"
      className={`region-name${region.chosen ? ' chosen' : ''}`}
    >
      {region.setting} {region.clearance}
    </text>
  ));
}

/** Where the pump works, and its way from cold start to hot running. */
function Duty({ map, axes }: { map: Drawn; axes: Axes }) {
  const point = spotOf(map.duty, axes);
  const way = map.way.map((one) => spotOf(one, axes));
  return (
    <>
      {way.length > 1 && <polyline points={way.map((p) => `${p.x},${p.y}`).join(' ')} className="duty-way" />}
      {endsOf(map, axes).map((end, i) => (
        <g key={i}>
          <circle cx={end.x} cy={end.y} r="5" className="duty-end" />
          <text x={end.x} y={end.y - 10} textAnchor="middle" className="duty-name">
            {i ? 'hot' : 'cold'}
          </text>
        </g>
      ))}
      <circle cx={point.x} cy={point.y} r="8" className="duty-point" />
      <path d={`M${point.x} ${point.y - 16} v32 M${point.x - 16} ${point.y} h32`} className="duty-cross" />
    </>
  );
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
