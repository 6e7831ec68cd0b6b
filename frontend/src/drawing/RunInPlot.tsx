import type { Coach } from '../api/client';

const WIDTH = 640;
const LEFT = 56;
const RIGHT = 632;
const DROPS = { top: 12, bottom: 112 };
const BOX = { top: 140, bottom: 220 };

/** The log drawn: drops a minute in their range above, the box's temperature under its limit below, every turn of the gland marked. */
export function RunInPlot({ coach }: { coach: Coach }) {
  const { notes } = coach;
  if (notes.length < 2) return null;
  const last = notes.at(-1)?.minute ?? 1;
  const first = notes[0]?.minute ?? 0;
  const x = (minute: number) =>
    LEFT + 8 + ((minute - first) / Math.max(last - first, 1)) * (RIGHT - LEFT - 16);
  const [low = 0, high = 1] = coach.drops;
  const most = Math.max(high * 1.5, ...notes.map((n) => n.drops ?? 0));
  // Square roots: between a stream and a drop the eye needs both.
  const d = (drops: number) => DROPS.bottom - Math.sqrt(drops / most) * (DROPS.bottom - DROPS.top);
  const boxes = notes.flatMap((n) => (n.box_c === null ? [] : [n.box_c]));
  const cool = Math.min(coach.hottest_c - 30, ...boxes);
  const warm = Math.max(coach.hottest_c + 8, ...boxes);
  const t = (c: number) => BOX.bottom - ((c - cool) / (warm - cool)) * (BOX.bottom - BOX.top);
  const dropped = notes.filter((n) => n.drops !== null);
  const felt = notes.filter((n) => n.box_c !== null);
  return (
    <svg viewBox={`0 0 ${WIDTH} 262`} className="run-in-plot" role="img" aria-label={described(coach)}>
      <rect x={LEFT} y={d(high)} width={RIGHT - LEFT} height={d(low) - d(high)} className="window" />
      <text x={LEFT - 6} y={d(high) + 5} textAnchor="end" className="window-text">
        {high}
      </text>
      <text x={LEFT - 6} y={d(low) + 5} textAnchor="end" className="window-text">
        {low}
      </text>
      <text x={RIGHT} y={DROPS.top + 6} textAnchor="end" className="note">
        drops a minute
      </text>
      <polyline
        points={dropped.map((n) => `${x(n.minute)},${d(n.drops ?? 0)}`).join(' ')}
        className="life-line"
      />
      {dropped.map((n) => (
        <circle key={n.number} cx={x(n.minute)} cy={d(n.drops ?? 0)} r="5" className="size-dot" />
      ))}
      <path d={`M${LEFT} ${t(coach.hottest_c)} H${RIGHT}`} className="limit-line" />
      <text x={LEFT - 6} y={t(coach.hottest_c) + 5} textAnchor="end" className="limit-text">
        {coach.hottest}
      </text>
      <text x={RIGHT} y={BOX.bottom - 4} textAnchor="end" className="note">
        stuffing box
      </text>
      <polyline
        points={felt.map((n) => `${x(n.minute)},${t(n.box_c ?? 0)}`).join(' ')}
        className="life-line"
      />
      {felt.map((n) => (
        <circle key={n.number} cx={x(n.minute)} cy={t(n.box_c ?? 0)} r="5" className="size-dot hollow" />
      ))}
      {notes
        .filter((n) => n.eighths !== 0)
        .map((n) => (
          <g key={n.number} className="arrow">
            <path
              d={n.eighths > 0 ? `M${x(n.minute)} 126 l-7 -12 h14 Z` : `M${x(n.minute)} 116 l-7 12 h14 Z`}
              className={n.eighths > 0 ? 'arrow-head' : 'back-off'}
            />
          </g>
        ))}
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

function described(coach: Coach): string {
  const lines = coach.notes.map((n) => {
    const said = [`minute ${n.minute.toFixed(0)}`, n.drops_text && `${n.drops_text} drops`, n.box, n.turn];
    return said.filter(Boolean).join(', ');
  });
  return `Run-in: ${lines.join('; ')}.`;
}
