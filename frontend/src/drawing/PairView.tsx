import { useId } from 'react';
import type { GasketPair, Held } from '../api/client';
import { Hatch } from './GapBar';

const WIDTH = 660;
const ROW = 196;
const TOP = 104;
const LEFT = 176;
const RIGHT = WIDTH - 176;
/** Drawing units to a millimetre of gap or gasket: all to one scale. */
const SCALE = 170;
const MOST = 54;

interface Props {
  pair: GasketPair;
  gaps: Held[];
  unit: string;
}

/** Both gears between their plates with a gasket at each end: what is in, what comes out and goes in, and the gaps it comes to. */
export function PairView({ pair, gaps, unit }: Props) {
  const hatch = useId();
  const [front, back] = pair.ends;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 516`}
      className="stack-view"
      role="img"
      aria-label={described(pair, gaps, unit)}
    >
      <Hatch id={hatch} />
      <End end={back} x={6} anchor="start" unit={unit} />
      <End end={front} x={WIDTH - 6} anchor="end" unit={unit} />
      <text x={WIDTH / 2} y="24" textAnchor="middle" className="stack-title">
        {pair.gears[0]?.total ? 'End gaps this comes to' : 'End gaps, not told yet'}
      </text>
      {[LEFT + 8, RIGHT - 8].map((x) => (
        <text key={x} x={x} y={TOP - 7} textAnchor="middle" className="note">
          wear plate
        </text>
      ))}
      {pair.gears.map((gear, i) => (
        <Gear key={gear.name} gear={gear} top={TOP + i * ROW} hatch={hatch} unit={unit} />
      ))}
      <text x={WIDTH / 2} y="508" textAnchor="middle" className="note">
        Drive end right; gears in the middle. Gaps to one scale, the rest not.
      </text>
    </svg>
  );
}

type OneEnd = GasketPair['ends'][number];

function End({
  end,
  x,
  anchor,
  unit,
}: {
  end: OneEnd | undefined;
  x: number;
  anchor: 'start' | 'end';
  unit: string;
}) {
  if (!end) return null;
  const lines = [
    { text: end.now.length ? `now ${list(end.now)} ${unit}` : 'nothing in yet', name: 'note' },
    ...(end.out.length ? [{ text: `out ${list(end.out)} ${unit}`, name: 'moves-out-text' }] : []),
    ...(end.into.length ? [{ text: `in ${list(end.into)} ${unit}`, name: 'moves-in-text' }] : []),
  ];
  return (
    <g>
      <text x={x} y="24" textAnchor={anchor} className="stack-title">
        {end.name}
      </text>
      {lines.map((line, i) => (
        <text key={line.name} x={x} y={46 + i * 20} textAnchor={anchor} className={line.name}>
          {line.text}
        </text>
      ))}
    </g>
  );
}

interface GearProps {
  gear: GasketPair['gears'][number];
  top: number;
  hatch: string;
  unit: string;
}

function Gear({ gear, top, hatch, unit }: GearProps) {
  const known = gear.total !== '';
  const wide = (mm: number) => (known ? Math.min(Math.max(mm * SCALE, 1.5), MOST) : 24);
  const [front, back] = [wide(gear.front_mm), wide(gear.back_mm)];
  const high = ROW - 52;
  return (
    <g>
      <rect x={LEFT - 70} y={top} width="70" height={high} className="metal" fill={`url(#${hatch})`} />
      <rect x={LEFT} y={top} width="16" height={high} className="bright" />
      <rect x={RIGHT - 16} y={top} width="16" height={high} className="bright" />
      <rect x={RIGHT} y={top} width="70" height={high} className="metal" fill={`url(#${hatch})`} />
      <rect x="40" y={top + high / 2 - 14} width={WIDTH - 80} height="28" className="bright" />
      <rect
        x={LEFT + 16 + back}
        y={top + 8}
        width={RIGHT - LEFT - 32 - back - front}
        height={high - 16}
        className="steel-part"
      />
      <text x={WIDTH / 2} y={top + high / 2 + 6} textAnchor="middle" className="gasket-text">
        {known ? `${gear.name}, total ${gear.total}` : gear.name}
      </text>
      {known && (
        <>
          <path d={`M${LEFT + 16 + back / 2} ${top + high} v12`} className="leader" />
          <path d={`M${RIGHT - 16 - front / 2} ${top + high} v12`} className="leader" />
          <text x={LEFT + 16} y={top + high + 32} className="gap-value">
            {gear.back} {unit}
          </text>
          <text x={RIGHT - 16} y={top + high + 32} textAnchor="end" className="gap-value">
            {gear.front} {unit}
          </text>
        </>
      )}
    </g>
  );
}

function list(pieces: OneEnd['now']): string {
  return pieces.map((p) => (p.count > 1 ? `${p.count} × ${p.text}` : p.text)).join(' + ');
}

function described(pair: GasketPair, gaps: Held[], unit: string): string {
  const ends = pair.ends.map(
    (e) =>
      `${e.name}: now ${list(e.now) || 'nothing'}, out ${list(e.out) || 'nothing'}, in ${list(e.into) || 'nothing'}`,
  );
  const gears = pair.gears.map((g) =>
    g.total
      ? `${g.name}: total ${g.total} ${unit}, front ${g.front}, back ${g.back}`
      : `${g.name}: not told yet`,
  );
  const read = gaps.filter((g) => g.gap && !g.derived).map((g) => `${g.name} ${g.gap} ${unit}`);
  return [...ends, ...gears, ...read].join('. ');
}
