import { useId } from 'react';
import type { Held, Timing } from '../api/client';
import { Hatch } from './GapBar';
import { narrowest } from './narrowest';

/** The mesh of the timed pair: the two gaps beside the middle wing, drawn to one scale, and which way the released rotor turns. */
export function MeshView({ timing, gaps, unit }: { timing: Timing; gaps: Held[]; unit: string }) {
  const hatch = useId();
  const [left, right] = [narrowest(gaps, 'mesh:left'), narrowest(gaps, 'mesh:right')];
  const scale =
    60 / Math.max(left?.gap_mm ?? left?.high_mm ?? 1, right?.gap_mm ?? right?.high_mm ?? 1, 0.001);
  const gap = (held: Held | undefined) => Math.max((held?.gap_mm ?? held?.target_mm ?? 0) * scale, 1.5);
  const wing = { left: 330 - 70, right: 330 + 70 };
  return (
    <svg
      viewBox="0 0 660 470"
      className="stack-view"
      role="img"
      aria-label={described(timing, left, right, unit)}
    >
      <Hatch id={hatch} />
      <text x="330" y="26" textAnchor="middle" className="stack-title">
        Seen from the gear end
      </text>
      <path
        d={`M40 250 V110 H${wing.left - gap(left)} V250 Q330 320 ${wing.right + gap(right)} 250 V110 H620 V250 Q330 470 40 250 Z`}
        className="metal"
        fill={`url(#${hatch})`}
      />
      <path d={`M${wing.left} 60 H${wing.right} V236 Q330 268 ${wing.left} 236 Z`} className="steel-part" />
      <text x="330" y="160" textAnchor="middle" className="gasket-text">
        released
      </text>
      <Read held={left} x={wing.left - gap(left) / 2} anchor="end" name="left" unit={unit} />
      <Read held={right} x={wing.right + gap(right) / 2} anchor="start" name="right" unit={unit} />
      {timing.toward && <Turn toward={timing.toward} />}
      <text x="330" y="440" textAnchor="middle" className="note">
        {timing.toward
          ? `${timing.arc} ${unit} along the marks on Ø ${timing.marked}, ${timing.angle_deg.toFixed(2)}°`
          : `Pitch Ø ${timing.pitch}, marks on Ø ${timing.marked}`}
      </text>
      <text x="330" y="462" textAnchor="middle" className="note">
        Both gaps to one scale, the rest not.
      </text>
    </svg>
  );
}

interface ReadProps {
  held: Held | undefined;
  x: number;
  anchor: 'start' | 'end';
  name: string;
  unit: string;
}

function Read({ held, x, anchor, name, unit }: ReadProps) {
  const off = anchor === 'end' ? -14 : 14;
  return (
    <g>
      <path d={`M${x} 96 V76 h${off}`} className="leader" fill="none" />
      <text x={x + off * 1.5} y="82" textAnchor={anchor} className="gap-value">
        {name} {held?.gap ? `${held.gap} ${unit}` : 'not checked'}
      </text>
    </g>
  );
}

function Turn({ toward }: { toward: string }) {
  const d = toward === 'left' ? -1 : 1;
  return (
    <g className="arrow">
      <path d={`M${330 - 46 * d} 200 H${330 + 30 * d}`} fill="none" />
      <path d={`M${330 + 50 * d} 200 l${-20 * d} -11 v22 Z`} className="arrow-head" />
    </g>
  );
}

function described(timing: Timing, left: Held | undefined, right: Held | undefined, unit: string): string {
  const read = `Mesh gaps: left ${left?.gap || 'not checked'}, right ${right?.gap || 'not checked'} ${unit}`;
  return timing.toward ? `${read}; turn towards the ${timing.toward} by ${timing.arc} ${unit}.` : `${read}.`;
}
