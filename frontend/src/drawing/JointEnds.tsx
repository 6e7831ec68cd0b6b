import type { Packing } from '../api/client';

const STEP = 86;
const MIDDLE = 44;
const OUTER = 30;
const INNER = 17;

/** The rings from the bottom of the box, each seen along the shaft with its joint where it goes; the lantern ring between. */
export function JointEnds({ packing }: { packing: Packing }) {
  const rings = packing.joints_deg.map((deg, i) => ({ deg, name: String(i + 1) }));
  const lantern = packing.lantern_after;
  const shown = lantern ? [...rings.slice(0, lantern), null, ...rings.slice(lantern)] : rings;
  const width = Math.max(shown.length * STEP, 340);
  const joints = rings.map((r) => `ring ${r.name} at ${clock(r.deg)}`).join(', ');
  return (
    <svg
      viewBox={`0 0 ${width} 132`}
      className="joint-ends"
      style={{ maxWidth: width }}
      role="img"
      aria-label={`Joints: ${joints}.`}
    >
      {shown.map((ring, i) => (
        <g key={i} transform={`translate(${STEP / 2 + i * STEP} ${MIDDLE})`}>
          <circle
            r={OUTER}
            className={ring ? 'packing' : 'bright'}
            strokeDasharray={ring ? undefined : '5 4'}
          />
          <circle r={INNER} className="steel light" />
          {ring && (
            <path
              d={`M-3 ${-OUTER - 3} H3 V${-INNER + 1} H-3Z`}
              transform={`rotate(${ring.deg})`}
              className="joint"
            />
          )}
          <text y="5.5" textAnchor="middle" className="stack-number">
            {ring?.name ?? ''}
          </text>
          <text y="50" textAnchor="middle" className="note">
            {ring ? clock(ring.deg) : 'lantern'}
          </text>
        </g>
      ))}
      <text x="4" y="126" className="note">
        ← bottom of the box, at the rotor; seen from the drive
      </text>
    </svg>
  );
}

const clock = (deg: number): string => `${deg / 30 || 12} o'clock`;
