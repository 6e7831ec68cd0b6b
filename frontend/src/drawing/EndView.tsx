import { useId } from 'react';
import type { Housing } from '../api/client';
import { Hatch } from './GapBar';

const C = { x: 330, y: 262 };
const R_OUT = 226;
const R_HOUSING = 192;

/** A point at an angle from the zero line, in the opening direction: to the left (counterclockwise) for a right-hand thread. */
function at(radius: number, degrees: number, hand: string): { x: number; y: number } {
  const turn = ((hand === 'right' ? -degrees : degrees) * Math.PI) / 180;
  return { x: C.x + radius * Math.sin(turn), y: C.y - radius * Math.cos(turn) };
}

/** The bearing housing in its bracket seen from the shaft end: the zero mark, the scale of clearance, where it stands, where to go. */
export function EndView({ housing, unit, turning }: { housing: Housing; unit: string; turning: boolean }) {
  const hatch = useId();
  const { hand, position_deg: now, target_deg: goal } = housing;
  const mark = (deg: number, from: number, to: number) => {
    const [a, b] = [at(from, deg, hand), at(to, deg, hand)];
    return { x1: a.x, y1: a.y, x2: b.x, y2: b.y };
  };
  return (
    <svg viewBox="0 0 660 560" className="end-view" role="img" aria-label={described(housing, turning)}>
      <Hatch id={hatch} />
      <path
        d="M66 330 H594 V528 a8 8 0 0 1 -8 8 H74 a8 8 0 0 1 -8 -8 Z"
        className="metal"
        fill={`url(#${hatch})`}
      />
      <circle cx={C.x} cy={C.y} r={R_OUT} className="bracket" />
      <circle cx={C.x} cy={C.y} r={R_HOUSING} className="housing" />
      {scale(housing, unit).map((tick) => (
        <g key={tick.deg}>
          <line
            {...mark(tick.deg, R_HOUSING + 3, R_HOUSING + (tick.text ? 20 : 10))}
            className={tick.text ? 'tick long' : 'tick'}
          />
          {tick.text && <TickText deg={tick.deg} text={tick.text} hand={hand} />}
        </g>
      ))}
      <line {...mark(0, R_HOUSING + 2, R_OUT)} className="zero-mark" />
      <text x={C.x} y={C.y - R_OUT - 10} textAnchor="middle" className="zero-text">
        zero
      </text>
      <line {...mark(now, R_HOUSING - 34, R_HOUSING - 2)} className="now-mark" />
      {turning && (
        <>
          <line {...mark(goal, R_HOUSING + 2, R_OUT)} className="goal-mark" />
          <Arrow from={now} to={goal} hand={hand} />
        </>
      )}
      <Hub />
      <text x="82" y="520" className="note">
        {hand === 'right' ? '↺ counterclockwise opens' : '↻ clockwise opens'}
      </text>
      <text x="578" y="520" textAnchor="end" className="note">
        {hand === 'right' ? 'clockwise closes ↻' : 'counterclockwise closes ↺'}
      </text>
    </svg>
  );
}

/** A tick each so many mm, which of them are numbered and with how many decimals, and the unit in mm. */
const TICKS: Record<string, readonly [number, number, number, number]> = {
  mm: [0.01, 5, 2, 1],
  in: [0.0127, 2, 3, 25.4],
  thou: [0.0127, 2, 0, 0.0254],
};

/** A tick each 0.01 mm or half a thousandth, a little past the furthest mark. */
function scale({ degrees_per_mm, position_deg, target_deg }: Housing, unit: string) {
  const [step, numbered, decimals, unitMm] = TICKS[unit] ?? [0.01, 5, 2, 1];
  const last = Math.min(Math.max(position_deg, target_deg, 0) * 1.2 + 8, 300);
  const count = Math.min(Math.floor(last / (degrees_per_mm * step)), 120);
  return Array.from({ length: Math.max(count, 0) }, (_, i) => {
    const size = (step * (i + 1)) / unitMm;
    return {
      deg: degrees_per_mm * step * (i + 1),
      text: (i + 1) % numbered === 0 ? size.toFixed(decimals) : '',
    };
  });
}

function TickText({ deg, text, hand }: { deg: number; text: string; hand: string }) {
  const p = at(R_OUT + 12, deg, hand);
  return (
    <text x={p.x} y={p.y + 4} textAnchor={hand === 'right' ? 'end' : 'start'} className="note">
      {text}
    </text>
  );
}

/** The way from where the housing's line stands to where it has to go, drawn inside the housing. */
function Arrow({ from, to, hand }: { from: number; to: number; hand: string }) {
  const r = R_HOUSING - 18;
  const size = Math.abs(to - from);
  const head = Math.min(9, size / 2);
  const tip = to;
  const neck = to > from ? to - head : to + head;
  const [a, b] = [at(r, from, hand), at(r, neck, hand)];
  const counterclockwise = to > from === (hand === 'right');
  const [t, l, k] = [at(r, tip, hand), at(r - 11, neck, hand), at(r + 11, neck, hand)];
  return (
    <g className="arrow">
      <path
        d={`M${a.x} ${a.y} A${r} ${r} 0 ${size > 180 ? 1 : 0} ${counterclockwise ? 0 : 1} ${b.x} ${b.y}`}
        fill="none"
      />
      <path d={`M${t.x} ${t.y} L${l.x} ${l.y} L${k.x} ${k.y} Z`} className="arrow-head" />
    </g>
  );
}

function Hub() {
  const hatch = useId();
  return (
    <g>
      <Hatch id={hatch} />
      {[55, 125, 235, 305].map((deg) => {
        const p = at(136, deg, 'right');
        return <circle key={deg} cx={p.x} cy={p.y} r="9" className="bright" />;
      })}
      {[90, 270].map((deg) => {
        const p = at(136, deg, 'right');
        return (
          <g key={deg}>
            <circle cx={p.x} cy={p.y} r="13" className="bright" />
            <path d={`M${p.x - 8} ${p.y} h16`} className="slot-line" />
          </g>
        );
      })}
      <circle cx={C.x} cy={C.y} r="84" className="bright" />
      <circle cx={C.x} cy={C.y} r="58" className="metal" fill={`url(#${hatch})`} />
      <circle cx={C.x} cy={C.y} r="30" className="bright" />
      <rect x={C.x - 8} y={C.y - 40} width="16" height="16" className="bright" />
      <text x={C.x} y={C.y + 5} textAnchor="middle" className="note">
        shaft
      </text>
    </g>
  );
}

function described(housing: Housing, turning: boolean): string {
  const stands = `The housing's line stands ${housing.position_deg.toFixed(1)} degrees open of zero`;
  return turning ? `${stands}; it has to go to ${housing.target_deg.toFixed(1)} degrees.` : `${stands}.`;
}
