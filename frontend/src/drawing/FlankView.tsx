import { useId } from 'react';
import type { Held, Helix } from '../api/client';
import { Hatch } from './GapBar';
import { narrowest } from './narrowest';

const MIDDLE = 330;
const LEAN = 26;
const CREST = 62;
const MOST = 60;

interface Props {
  helix: Helix;
  gaps: Held[];
  unit: string;
}

/** A crest of one screw between two flanks of the other; both gaps to one scale, and which way the released screw goes. */
export function FlankView({ helix, gaps, unit }: Props) {
  const hatch = useId();
  const [left, right] = [narrowest(gaps, 'flank:left'), narrowest(gaps, 'flank:right')];
  const scale =
    MOST / Math.max(left?.gap_mm ?? left?.high_mm ?? 1, right?.gap_mm ?? right?.high_mm ?? 1, 0.001);
  const wide = (held: Held | undefined) => Math.max((held?.gap_mm ?? held?.target_mm ?? 0) * scale, 1.5);
  const [from, to] = [MIDDLE - CREST - wide(left), MIDDLE + CREST + wide(right)];
  return (
    <svg
      viewBox="0 0 660 430"
      className="stack-view"
      role="img"
      aria-label={described(helix, left, right, unit)}
    >
      <Hatch id={hatch} />
      <text x={MIDDLE} y="26" textAnchor="middle" className="stack-title">
        Flank gaps, seen from the side
      </text>
      <path d={flank(from, -1)} className="metal" fill={`url(#${hatch})`} />
      <path d={flank(to, 1)} className="metal" fill={`url(#${hatch})`} />
      <path
        d={`M${MIDDLE - CREST} 300 l${LEAN} -200 h${2 * CREST - 2 * LEAN} l${LEAN} 200 Z`}
        className="steel-part"
      />
      <text x={MIDDLE} y="246" textAnchor="middle" className="gasket-text">
        {helix.shut ? 'on its marks' : 'released'}
      </text>
      <Read held={left} x={from + wide(left) / 2} anchor="end" name="left" unit={unit} />
      <Read held={right} x={to - wide(right) / 2} anchor="start" name="right" unit={unit} />
      {helix.toward && <Shift left={helix.toward === 'left'} />}
      <text x={MIDDLE} y="392" textAnchor="middle" className="note">
        {helix.toward
          ? `${helix.along} along, or ${helix.angle_deg.toFixed(2)}° of turn: one move. Lead ${helix.lead}.`
          : `Read ${helix.read}. Lead ${helix.lead}.`}
      </text>
      <text x={MIDDLE} y="418" textAnchor="middle" className="note">
        Both gaps to one scale, the rest not.
      </text>
    </svg>
  );
}

/** A flank of the other screw, from the crest outward. */
function flank(x: number, way: number): string {
  return `M${x} 300 l${-LEAN * way} -200 H${MIDDLE + 290 * way} V300 Z`;
}

interface ReadProps {
  held: Held | undefined;
  x: number;
  anchor: 'start' | 'end';
  name: string;
  unit: string;
}

function Read({ held, x, anchor, name, unit }: ReadProps) {
  return (
    <g>
      <path d={`M${x} 302 v22`} className="leader" fill="none" />
      <text x={x} y="346" textAnchor={anchor} className="gap-value">
        {name} {held?.gap ? `${held.gap} ${unit}` : 'not checked'}
      </text>
    </g>
  );
}

function Shift({ left }: { left: boolean }) {
  const d = left ? -1 : 1;
  return (
    <g className="arrow">
      <path d={`M${MIDDLE - 34 * d} 180 H${MIDDLE + 18 * d}`} fill="none" />
      <path d={`M${MIDDLE + 36 * d} 180 l${-20 * d} -11 v22 Z`} className="arrow-head" />
    </g>
  );
}

function described(helix: Helix, left: Held | undefined, right: Held | undefined, unit: string): string {
  const read = `Flank gaps: left ${left?.gap || 'not checked'}, right ${right?.gap || 'not checked'} ${unit}`;
  return helix.toward ? `${read}; the screw goes towards the ${helix.toward} by ${helix.along}.` : `${read}.`;
}
