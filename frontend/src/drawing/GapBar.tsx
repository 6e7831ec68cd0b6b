import { useId } from 'react';

interface GapProps {
  /** The faces it is between, where they are worth naming: the left one second, as the sheet says them. */
  faces?: string[];
  low: { mm: number; text: string };
  high: { mm: number; text: string };
  targetMm: number;
  measured: { mm: number; expandedMm: number; text: string } | null;
}

const WIDTH = 512;
const FACE = 26;

/** The gap magnified between two hatched faces: the window, the target, and what was measured with its soft edge. */
export function GapBar({ faces = [], low, high, targetMm, measured }: GapProps) {
  const hatch = useId();
  const most = 1.3 * Math.max(high.mm, measured ? measured.mm + measured.expandedMm : 0);
  const x = (mm: number) => FACE + (WIDTH - 2 * FACE) * Math.min(Math.max(mm / most, 0), 1);
  const said = measured
    ? `Measured ${measured.text}, window ${low.text} to ${high.text}`
    : `Window ${low.text} to ${high.text}`;
  return (
    <svg viewBox={`0 0 ${WIDTH} 100`} className="gap-bar" role="img" aria-label={said}>
      <Hatch id={hatch} />
      <text x="0" y="14" className="note">
        {faces[1]}
      </text>
      <text x={WIDTH} y="14" textAnchor="end" className="note">
        {faces[0]}
      </text>
      <rect x={FACE} y="24" width={WIDTH - 2 * FACE} height="48" className="slot" />
      <rect x={x(low.mm)} y="24" width={x(high.mm) - x(low.mm)} height="48" className="window" />
      {measured && (
        <>
          <rect
            x={x(measured.mm - measured.expandedMm)}
            y="35"
            width={x(measured.mm + measured.expandedMm) - x(measured.mm - measured.expandedMm)}
            height="26"
            className="doubt"
          />
          <line x1={x(measured.mm)} x2={x(measured.mm)} y1="28" y2="68" className="value" />
        </>
      )}
      <path d={`M${x(targetMm)} 23 l-6 -11 h12 z`} className="target" />
      <rect x="0.7" y="24" width={FACE} height="48" className="metal" fill={`url(#${hatch})`} />
      <rect
        x={WIDTH - FACE - 0.7}
        y="24"
        width={FACE}
        height="48"
        className="metal"
        fill={`url(#${hatch})`}
      />
      <text x={x(low.mm)} y="92" textAnchor="middle" className="window-text">
        {low.text}
      </text>
      <text x={x(high.mm)} y="92" textAnchor="middle" className="window-text">
        {high.text}
      </text>
    </svg>
  );
}

interface WearProps {
  newMm: number[];
  limitMm: number;
  limitText: string;
  valueMm: number | null;
  expandedMm: number;
  /** Where it is forecast to be at the next planned overhaul. */
  laterMm?: number | null;
}

/** The gap bar's sister: stock left between new and limit, whichever way the part wears; the limit is always on the right. */
export function WearBar({ newMm, limitMm, limitText, valueMm, expandedMm, laterMm = null }: WearProps) {
  const hatch = useId();
  const [a = 0, b = 0] = newMm;
  const fresh = limitMm > b ? a : b;
  const nearest = limitMm > b ? b : a;
  const share = (mm: number) => (mm - fresh) / (limitMm - fresh);
  const x = (mm: number) => Math.min(Math.max(WIDTH * (0.04 + 0.72 * share(mm)), 3), WIDTH - 3);
  const doubt = valueMm === null ? 0 : Math.abs(x(valueMm + expandedMm) - x(valueMm - expandedMm)) / 2;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 66`}
      className="gap-bar"
      role="img"
      aria-label={`Wear between new and ${limitText}`}
    >
      <Hatch id={hatch} />
      <rect x="1" y="8" width={WIDTH - 2} height="34" className="slot framed" />
      <rect x={x(fresh)} y="8" width={Math.max(x(nearest) - x(fresh), 2)} height="34" className="window" />
      <rect
        x={x(limitMm)}
        y="8"
        width={WIDTH - 1 - x(limitMm)}
        height="34"
        className="metal"
        fill={`url(#${hatch})`}
      />
      {valueMm !== null && laterMm !== null && (
        <g className="later">
          <line x1={x(valueMm)} x2={x(laterMm)} y1="25" y2="25" />
          <path d={`M${x(laterMm)} 15 v20`} />
        </g>
      )}
      {valueMm !== null && (
        <>
          <rect x={x(valueMm) - doubt} y="14" width={2 * doubt} height="22" className="doubt" />
          <line x1={x(valueMm)} x2={x(valueMm)} y1="2" y2="48" className="value" />
        </>
      )}
      <text x={x(fresh)} y="62" className="note">
        new
      </text>
      <text x={x(limitMm)} y="62" textAnchor="middle" className="note">
        {limitText}
      </text>
    </svg>
  );
}

export function Hatch({ id, turn = 45, scale = 1 }: { id: string; turn?: number; scale?: number }) {
  return (
    <defs>
      <pattern
        id={id}
        width="8"
        height="8"
        patternUnits="userSpaceOnUse"
        patternTransform={`rotate(${turn}) scale(${scale})`}
      >
        <rect width="8" height="8" className="hatch-ground" />
        <line x1="0" y1="0" x2="0" y2="8" className="hatch-line" />
      </pattern>
    </defs>
  );
}
