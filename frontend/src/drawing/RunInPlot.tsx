import { scaleLinear } from 'd3-scale';
import type { Coach } from '../api/client';

const WIDTH = 640;
const LEFT = 56;
const RIGHT = 632;
const DROPS = { top: 12, bottom: 112 };
const BOX = { top: 140, bottom: 220 };

type Notes = Coach['notes'];
type Scale = (value: number) => number;

/** The log drawn: drops a minute in their range above, the box's temperature under its limit below, every turn of the gland marked. */
export function RunInPlot({ coach }: { coach: Coach }) {
  const { notes } = coach;
  if (notes.length < 2) return null;
  const first = notes[0]?.minute ?? 0;
  const last = notes.at(-1)?.minute ?? 1;
  const x = scaleLinear([first, Math.max(last, first + 1)], [LEFT + 8, RIGHT - 8]);
  return (
    <svg viewBox={`0 0 ${WIDTH} 262`} className="run-in-plot" role="img" aria-label={described(coach)}>
      <Drops coach={coach} x={x} />
      <Box coach={coach} x={x} />
      <Turns notes={notes} x={x} />
      <path d={`M${LEFT} ${BOX.bottom + 8} H${RIGHT}`} className="frame-line" />
      <text x={x(first)} y={BOX.bottom + 28} className="note">
        {first.toFixed(0)} min
      </text>
      <text x={x(last)} y={BOX.bottom + 28} textAnchor="end" className="note">
        {last.toFixed(0)} min
      </text>
      <text x={WIDTH / 2} y={BOX.bottom + 28} textAnchor="middle" className="note">
        ▼ tightened, ▲ backed off
      </text>
    </svg>
  );
}

interface Props {
  coach: Coach;
  x: Scale;
}

function Drops({ coach, x }: Props) {
  const [low = 0, high = 1] = coach.drops;
  const most = Math.max(high * 1.5, ...coach.notes.map((n) => n.drops ?? 0));
  // Square roots: between a stream and a drop the eye needs both.
  const byRoot = scaleLinear([0, Math.sqrt(most)], [DROPS.bottom, DROPS.top]);
  const y = (drops: number) => byRoot(Math.sqrt(drops));
  const dropped = coach.notes.filter((n) => n.drops !== null);
  return (
    <>
      <rect x={LEFT} y={y(high)} width={RIGHT - LEFT} height={y(low) - y(high)} className="window" />
      {[high, low].map((bound) => (
        <text key={bound} x={LEFT - 6} y={y(bound) + 5} textAnchor="end" className="window-text">
          {bound}
        </text>
      ))}
      <text x={RIGHT} y={DROPS.top + 6} textAnchor="end" className="note">
        drops a minute
      </text>
      <polyline
        points={dropped.map((n) => `${x(n.minute)},${y(n.drops ?? 0)}`).join(' ')}
        className="life-line"
      />
      {dropped.map((n) => (
        <circle key={n.number} cx={x(n.minute)} cy={y(n.drops ?? 0)} r="5" className="size-dot" />
      ))}
    </>
  );
}

function Box({ coach, x }: Props) {
  const felt = coach.notes.filter((n) => n.box_c !== null);
  const boxes = felt.map((n) => n.box_c ?? 0);
  const cool = Math.min(coach.hottest_c - 30, ...boxes);
  const warm = Math.max(coach.hottest_c + 8, ...boxes);
  const y = scaleLinear([cool, warm], [BOX.bottom, BOX.top]);
  return (
    <>
      <path d={`M${LEFT} ${y(coach.hottest_c)} H${RIGHT}`} className="limit-line" />
      <text x={LEFT - 6} y={y(coach.hottest_c) + 5} textAnchor="end" className="limit-text">
        {coach.hottest}
      </text>
      <text x={RIGHT} y={BOX.bottom - 4} textAnchor="end" className="note">
        stuffing box
      </text>
      <polyline
        points={felt.map((n) => `${x(n.minute)},${y(n.box_c ?? 0)}`).join(' ')}
        className="life-line"
      />
      {felt.map((n) => (
        <circle key={n.number} cx={x(n.minute)} cy={y(n.box_c ?? 0)} r="5" className="size-dot hollow" />
      ))}
    </>
  );
}

function Turns({ notes, x }: { notes: Notes; x: Scale }) {
  return notes
    .filter((n) => n.eighths !== 0)
    .map((n) => (
      <g key={n.number} className="arrow">
        <path
          d={n.eighths > 0 ? `M${x(n.minute)} 126 l-7 -12 h14 Z` : `M${x(n.minute)} 116 l-7 12 h14 Z`}
          className={n.eighths > 0 ? 'arrow-head' : 'back-off'}
        />
      </g>
    ));
}

function described(coach: Coach): string {
  const lines = coach.notes.map((n) => {
    const said = [`minute ${n.minute.toFixed(0)}`, n.drops_text && `${n.drops_text} drops`, n.box, n.turn];
    return said.filter(Boolean).join(', ');
  });
  return `Run-in: ${lines.join('; ')}.`;
}
