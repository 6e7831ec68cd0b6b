const SMALLEST = 96;
const ROOM = 7.2;
/** Beyond this the small figures could not be read. */
const RANKED = 20;

interface Props {
  /** Order of tightening, numbered clockwise from 1 at the top. */
  order: number[];
  /** What is left of the pass, in order. */
  left: number[];
}

/** The fasteners on their circle: done ones filled, the next one in blue, the small figure says when each comes. */
export function BoltCircle({ order, left }: Props) {
  const count = order.length;
  const radius = Math.max(SMALLEST, count * ROOM);
  const size = 2 * (radius + 44);
  const bolt = Math.min(19, (Math.PI * radius * 0.82) / count);
  const next = left[0];
  const said = next ? `Next is number ${next}` : 'all of this pass are done';
  return (
    <svg
      viewBox={`0 0 ${size} ${size}`}
      className="bolt-circle"
      role="img"
      aria-label={`${count} fasteners. ${said}.`}
    >
      <circle cx={size / 2} cy={size / 2} r={radius} className="outline bolt-pitch" />
      {order.map((number, rank) => {
        const turn = ((number - 1) * 2 * Math.PI) / count;
        const at = (r: number) => ({ x: size / 2 + r * Math.sin(turn), y: size / 2 - r * Math.cos(turn) });
        const state = number === next ? 'next' : left.includes(number) ? 'left' : 'done';
        const place = at(radius);
        const label = at(radius + bolt + 12);
        return (
          <g key={number} className={`bolt is-${state}`}>
            <circle cx={place.x} cy={place.y} r={bolt} />
            <text x={place.x} y={place.y + 6} textAnchor="middle" className="bolt-number">
              {number}
            </text>
            {count <= RANKED && (
              <text x={label.x} y={label.y + 5} textAnchor="middle" className="note">
                {rank + 1}.
              </text>
            )}
          </g>
        );
      })}
      {next && (
        <text
          x={size / 2}
          y={size / 2 + size * 0.05}
          textAnchor="middle"
          className="bolt-next"
          style={{ fontSize: size * 0.16 }}
        >
          {next}
        </text>
      )}
    </svg>
  );
}
