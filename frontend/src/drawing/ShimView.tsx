import { useId } from 'react';
import type { Held, Shaft, Shims } from '../api/client';
import { Hatch } from './GapBar';

const WIDTH = 660;
const HALF = 262;
/** Drawing units to a millimetre of gap or shim: both to one scale. */
const SCALE = 150;
const MOST_GAP = 62;

/** Both rotors between the body's back face and its front face, each pushed forward by its shims; gaps and shims to one scale. */
export function ShimView({ shims, gaps, unit }: { shims: Shims; gaps: Held[]; unit: string }) {
  const hatch = useId();
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HALF * 2 + 24}`}
      className="stack-view"
      role="img"
      aria-label={described(shims, gaps, unit)}
    >
      <Hatch id={hatch} />
      {shims.shafts.map((shaft, i) => (
        <Rotor
          key={shaft.name}
          shaft={shaft}
          top={i * HALF + 6}
          hatch={hatch}
          unit={unit}
          front={gaps.find((g) => g.key === `front:${i + 1}`)}
          back={gaps.find((g) => g.key === `back:${i + 1}`)}
        />
      ))}
      <text x={WIDTH / 2} y={HALF * 2 + 18} textAnchor="middle" className="note">
        Forward is to the right. Gaps and shims to one scale, the rest not.
      </text>
    </svg>
  );
}

interface RotorProps {
  shaft: Shaft;
  top: number;
  hatch: string;
  unit: string;
  front: Held | undefined;
  back: Held | undefined;
}

function Rotor({ shaft, top, hatch, unit, front, back }: RotorProps) {
  const b = wide(shaft.back_mm ?? back?.target_mm ?? 0);
  const f = wide(shaft.front_mm ?? front?.target_mm ?? 0);
  const bodyBack = 286;
  const bodyFront = bodyBack + b + 120 + f;
  const mid = top + 128;
  const shims = [...shaft.now];
  const width = shims.reduce((sum, p) => sum + p.um * p.count, 0) * (SCALE / 1000);
  const change = total(shaft.next) - total(shaft.now);
  return (
    <g>
      <text x="6" y={top + 20} className="stack-title">
        {shaft.name}
      </text>
      <rect x="40" y={mid - 13} width={bodyFront - 70} height="26" className="bright" />
      <Body back={bodyBack} front={bodyFront} top={top} hatch={hatch} />
      <rect x={bodyBack + b} y={top + 62} width="120" height="132" className="steel-part" />
      <text x={bodyBack + b + 60} y={mid + 6} textAnchor="middle" className="gasket-text">
        rotor
      </text>
      <rect x="110" y={mid - 44} width="56" height="88" className="metal" fill={`url(#${hatch})`} />
      <text x="138" y={mid + 62} textAnchor="middle" className="note">
        front bearing
      </text>
      <rect
        x={110 - Math.max(width, 2)}
        y={mid - 40}
        width={Math.max(width, 2)}
        height="80"
        className="gasket"
      />
      <text x="6" y={mid - 50} className="note">
        shims {shaft.now.length ? list(shaft.now) : 'none'}
      </text>
      <Gap x={bodyBack + b / 2} y={top + 190} held={back} name="back" unit={unit} />
      <Gap x={bodyBack + b + 120 + f / 2} y={top + 190} held={front} name="front" unit={unit} />
      {change !== 0 && <Arrow x={bodyBack + b + 60} y={top + 84} forward={change > 0} />}
      <Moves shaft={shaft} x={6} y={mid + 84} unit={unit} />
    </g>
  );
}

interface BodyProps {
  back: number;
  front: number;
  top: number;
  hatch: string;
}

/** The body round a rotor, open at its face. */
function Body({ back, front, top, hatch }: BodyProps) {
  return (
    <>
      <rect x={back - 46} y={top + 34} width="46" height="188" className="metal" fill={`url(#${hatch})`} />
      <rect
        x={back - 46}
        y={top + 34}
        width={front - back + 46}
        height="18"
        className="metal"
        fill={`url(#${hatch})`}
      />
      <rect
        x={back - 46}
        y={top + 204}
        width={front - back + 46}
        height="18"
        className="metal"
        fill={`url(#${hatch})`}
      />
      <path d={`M${front} ${top + 28} V${top + 228}`} className="face-line" />
      <text x={front + 8} y={top + 44} className="note">
        body face
      </text>
    </>
  );
}

function Gap({
  x,
  y,
  held,
  name,
  unit,
}: {
  x: number;
  y: number;
  held: Held | undefined;
  name: string;
  unit: string;
}) {
  return (
    <g>
      <path d={`M${x} ${y} v26`} className="leader" />
      <text x={x} y={y + 46} textAnchor={name === 'back' ? 'end' : 'start'} className="gap-value">
        {name} {held?.gap ? `${held.gap} ${unit}` : 'not checked'}
      </text>
    </g>
  );
}

function Moves({ shaft, x, y, unit }: { shaft: Shaft; x: number; y: number; unit: string }) {
  return (
    <>
      {shaft.out.length > 0 && (
        <text x={x} y={y} className="moves-out-text">
          out {list(shaft.out)} {unit}
        </text>
      )}
      {shaft.into.length > 0 && (
        <text x={x} y={y + (shaft.out.length ? 20 : 0)} className="moves-in-text">
          in {list(shaft.into)} {unit}
        </text>
      )}
    </>
  );
}

function Arrow({ x, y, forward }: { x: number; y: number; forward: boolean }) {
  const d = forward ? 1 : -1;
  return (
    <g className="arrow">
      <path d={`M${x - 34 * d} ${y} H${x + 24 * d}`} fill="none" />
      <path d={`M${x + 40 * d} ${y} l${-18 * d} -10 v20 Z`} className="arrow-head" />
    </g>
  );
}

function wide(mm: number): number {
  return Math.min(Math.max(mm * SCALE, 1.5), MOST_GAP);
}

function total(pieces: Shaft['now']): number {
  return pieces.reduce((sum, p) => sum + p.um * p.count, 0);
}

function list(pieces: Shaft['now']): string {
  return pieces.map((p) => (p.count > 1 ? `${p.count} × ${p.text}` : p.text)).join(' + ');
}

function described(shims: Shims, gaps: Held[], unit: string): string {
  const shafts = shims.shafts.map(
    (s) =>
      `${s.name}: shims ${list(s.now) || 'none'}; out ${list(s.out) || 'nothing'}; in ${list(s.into) || 'nothing'}`,
  );
  const read = gaps.filter((g) => g.gap && !g.derived).map((g) => `${g.name} ${g.gap} ${unit}`);
  return [...shafts, ...read].join('. ');
}
