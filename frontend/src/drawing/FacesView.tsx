import { useId } from 'react';
import type { Setting } from '../api/client';
import { Hatch } from './GapBar';
import { standing } from '../bench/job/standing';

const SCALE = 90;

interface Props {
  setting: Setting;
  unit: string;
  /** What holds the shaft where leaves put it; null where nothing adjusts it. */
  holder: 'ring' | 'coupling' | null;
}

/** Rotor against its face, the gap to scale against its window, with the leaves on both sides of the shaft where leaves set it. */
export function FacesView({ setting, unit, holder }: Props) {
  const hatch = useId();
  const last = standing(setting).at(-1);
  const shown = last?.gap_mm ?? setting.target_mm;
  const gap = Math.min((shown / setting.high_mm) * SCALE, 170);
  const [rotor = 'rotor', face = 'head'] = setting.faces;
  const edge = 220;
  return (
    <svg viewBox="0 0 660 430" className="stack-view" role="img" aria-label={described(setting, unit)}>
      <Hatch id={hatch} />
      <text x="330" y="26" textAnchor="middle" className="stack-title">
        {last ? `${setting.name}, as checked` : `${setting.name}, as it has to be`}
      </text>
      <rect x="60" y="50" width={edge - 60} height="290" className="metal" fill={`url(#${hatch})`} />
      <text x="140" y="366" textAnchor="middle" className="note">
        {face}
      </text>
      <rect x={edge + gap} y="74" width="120" height="242" className="steel-part" />
      <rect x={edge + gap + 120} y="172" width={620 - edge - gap - 120} height="46" className="bright" />
      <text x={edge + gap + 60} y="366" textAnchor="middle" className="note">
        {rotor}
      </text>
      {holder && (
        <>
          <rect x={edge + 1} y="100" width={gap - 2} height="40" className="gasket moves-in" />
          <rect x={edge + 1} y="250" width={gap - 2} height="40" className="gasket moves-in" />
          <text x={edge + gap / 2} y="94" textAnchor="middle" className="gasket-text">
            {setting.target}
          </text>
          <Holder coupling={holder === 'coupling'} />
        </>
      )}
      <path d={`M${edge} 322 v26 M${edge + gap} 322 v26 M${edge} 340 H${edge + gap}`} className="leader" />
      <text x={edge + gap / 2} y="392" textAnchor="middle" className="gap-value">
        {last ? `${last.gap} ${unit}` : `${setting.low} to ${setting.high} ${unit}`}
      </text>
      <text x="330" y="422" textAnchor="middle" className="note">
        The gap to scale against its window, the rest not.
      </text>
    </svg>
  );
}

/** What holds the shaft once it stands right: the ring, or the pump's half of the coupling, never the motor's. */
function Holder({ coupling }: { coupling: boolean }) {
  if (!coupling) {
    return (
      <g>
        <rect x="520" y="146" width="46" height="98" className="housing" />
        <circle cx="543" cy="160" r="8" className="goal-dot" />
        <circle cx="543" cy="230" r="8" className="goal-dot" />
        <text x="543" y="136" textAnchor="middle" className="note">
          ring: tighten evenly
        </text>
      </g>
    );
  }
  return (
    <g>
      <rect x="500" y="140" width="62" height="110" className="housing" />
      <rect x="562" y="140" width="62" height="110" className="bracket" />
      <circle cx="531" cy="158" r="8" className="goal-dot" />
      <circle cx="531" cy="232" r="8" className="goal-dot" />
      <text x="531" y="130" textAnchor="middle" className="note">
        pump: tighten
      </text>
      <text x="593" y="272" textAnchor="middle" className="note">
        motor: leave
      </text>
    </g>
  );
}

function described(setting: Setting, unit: string): string {
  const last = standing(setting).at(-1);
  const window = `window ${setting.low} to ${setting.high} ${unit}`;
  return last ? `${setting.name} checked as ${last.gap} ${unit}, ${window}.` : `${setting.name}, ${window}.`;
}
