import { useId } from 'react';
import type { Held, Tap } from '../api/client';
import { Hatch } from './GapBar';

const WIDTH = 660;
const MIDDLE = WIDTH / 2;
const HALF = 96;
const MOST = 64;

interface Props {
  tap: Tap;
  gaps: Held[];
  unit: string;
}

/** A rotor between its two halves, the drift at the end that is tapped; both gaps to one scale. */
export function TapView({ tap, gaps, unit }: Props) {
  const hatch = useId();
  const high = Math.max(...gaps.map((g) => g.high_mm), tap.front_mm, tap.back_mm, 1e-6);
  const wide = (mm: number) => Math.max((mm / high) * MOST, tap.front ? 1.5 : 30);
  const [front, back] = [wide(tap.front_mm), wide(tap.back_mm)];
  const known = tap.front !== '';
  return (
    <svg viewBox={`0 0 ${WIDTH} 430`} className="stack-view" role="img" aria-label={described(tap, unit)}>
      <Hatch id={hatch} />
      <text x={MIDDLE} y="26" textAnchor="middle" className="stack-title">
        {!known
          ? 'Side gaps, to be measured'
          : tap.foretold
            ? 'Side gaps, by the sizes'
            : 'Side gaps, as checked'}
      </text>
      <Half x={MIDDLE - HALF - front - 90} name="housing, front" hatch={hatch} />
      <Half x={MIDDLE + HALF + back} name="cover, back" hatch={hatch} />
      <rect x="96" y="186" width={WIDTH - 192} height="48" className="bright" />
      <rect x={MIDDLE - HALF} y="96" width={2 * HALF} height="228" className="steel-part" />
      <text x={MIDDLE} y="216" textAnchor="middle" className="gasket-text">
        rotor
      </text>
      <Gap x={MIDDLE - HALF - front / 2} text={known ? `${tap.front} ${unit}` : 'front'} end="end" />
      <Gap x={MIDDLE + HALF + back / 2} text={known ? `${tap.back} ${unit}` : 'back'} end="start" />
      {tap.end && <Drift front={tap.end === 'front'} />}
      <text x={MIDDLE} y="422" textAnchor="middle" className="note">
        Both gaps to one scale, the rest not.
      </text>
    </svg>
  );
}

function Half({ x, name, hatch }: { x: number; name: string; hatch: string }) {
  return (
    <g>
      <rect x={x} y="62" width="90" height="296" className="metal" fill={`url(#${hatch})`} />
      <text x={x + 45} y="380" textAnchor="middle" className="note">
        {name}
      </text>
    </g>
  );
}

function Gap({ x, text, end }: { x: number; text: string; end: 'start' | 'end' }) {
  return (
    <g>
      <path d={`M${x} 324 v24`} className="leader" />
      <text x={x + (end === 'end' ? 8 : -8)} y="404" textAnchor={end} className="gap-value">
        {text}
      </text>
    </g>
  );
}

/** The drift at one end of the shaft, and which way the rotor goes. */
function Drift({ front }: { front: boolean }) {
  const way = front ? 1 : -1;
  const at = front ? 92 : WIDTH - 92;
  return (
    <g>
      <rect x={front ? at - 70 : at} y="198" width="70" height="24" className="housing" />
      <text x={at - way * 44} y="186" textAnchor="middle" className="note">
        drift
      </text>
      <g className="arrow">
        <path d={`M${MIDDLE - way * 40} 120 H${MIDDLE + way * 24}`} fill="none" />
        <path d={`M${MIDDLE + way * 40} 120 l${-18 * way} -10 v20 Z`} className="arrow-head" />
      </g>
    </g>
  );
}

function described(tap: Tap, unit: string): string {
  if (!tap.front) return 'Side gaps, to be measured on both sides.';
  const gaps = `front ${tap.front} ${unit}, back ${tap.back} ${unit}`;
  const next = tap.end ? `. Tap the shaft on its ${tap.end} end` : '';
  return `Side gaps ${tap.foretold ? 'by the sizes' : 'as checked'}: ${gaps}${next}.`;
}
