import { useId } from 'react';
import type { Feature } from '../api/client';
import { Hatch } from './GapBar';

interface Props {
  features: Feature[];
  selected: string;
  onSelect: (key: string) => void;
}

/** The pump cut along its shaft, gaps drawn wide, each measured thing with its number, its state by shape and its value. */
export function Section({ features, selected, onSelect }: Props) {
  return (
    <svg
      viewBox="0 0 724 604"
      className="section"
      role="group"
      aria-label="Section of the pump with its numbered gaps"
    >
      <InternalGearSection />
      {features.map((feature) => (
        <Balloon
          key={feature.key}
          feature={feature}
          selected={feature.key === selected}
          onSelect={onSelect}
        />
      ))}
    </svg>
  );
}

function InternalGearSection() {
  const near = useId();
  const far = useId();
  const hatched = { fill: `url(#${near})`, className: 'metal' };
  const other = { fill: `url(#${far})`, className: 'metal' };
  return (
    <g aria-hidden="true">
      <Hatch id={near} />
      <defs>
        <pattern id={far} width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <rect width="8" height="8" className="hatch-ground" />
          <line x1="0" y1="0" x2="0" y2="8" className="hatch-line" />
        </pattern>
      </defs>
      <rect x="120" y="212" width="170" height="280" className="liquid" />
      <rect x="180" y="136" width="70" height="76" className="liquid" />
      {/* casing with its port, and the wall the bracket bolts to */}
      <path
        d="M120 172 H180 V136 H168 V126 H180 M250 126 H262 V136 H250 V172 H312 V212 H250 M180 212 H120 Z"
        className="outline"
      />
      <rect x="120" y="172" width="60" height="40" {...other} />
      <rect x="250" y="172" width="62" height="40" {...other} />
      <rect x="166" y="124" width="14" height="48" {...other} />
      <rect x="250" y="124" width="14" height="48" {...other} />
      <rect x="120" y="492" width="192" height="40" {...other} />
      <rect x="290" y="212" width="34" height="116" {...other} />
      <rect x="290" y="376" width="34" height="116" {...other} />
      {/* head with the idler pin and the crescent */}
      <rect x="64" y="172" width="56" height="360" {...hatched} />
      <rect x="120" y="362" width="118" height="82" {...hatched} />
      {/* rotor: disc and the teeth that reach to the head */}
      <path
        d="M128 220 H252 V254 H128 Z M128 450 H252 V484 H128 Z M252 220 H286 V484 H252 Z"
        className="steel light"
      />
      {/* idler on its pin */}
      <rect x="130" y="256" width="108" height="92" className="steel" />
      <rect x="130" y="284" width="108" height="36" className="clearance" />
      <rect x="84" y="288" width="158" height="28" className="bright" />
      {/* bracket, bushing, packing, gland */}
      <rect x="324" y="262" width="236" height="40" {...other} />
      <rect x="324" y="402" width="236" height="40" {...other} />
      <rect x="324" y="302" width="90" height="26" className="bushing" />
      <rect x="324" y="376" width="90" height="26" className="bushing" />
      {[0, 1, 2, 3].map((i) => (
        <g key={i}>
          <rect x={424 + i * 23} y="304" width="20" height="25" className="packing" />
          <rect x={424 + i * 23} y="375" width="20" height="25" className="packing" />
        </g>
      ))}
      <path d="M520 304 h20 v-18 h12 v43 h-32 z M520 400 h20 v18 h12 v-43 h-32 z" className="steel light" />
      {/* bearing housing and bearing */}
      <rect x="560" y="232" width="72" height="58" {...hatched} />
      <rect x="560" y="414" width="72" height="58" {...hatched} />
      <rect x="572" y="290" width="48" height="40" className="bright" />
      <rect x="572" y="374" width="48" height="40" className="bright" />
      <circle cx="596" cy="310" r="14" className="bright" />
      <circle cx="596" cy="394" r="14" className="bright" />
      {/* shaft, lock nut */}
      <rect x="286" y="330" width="400" height="44" className="bright" />
      <rect x="640" y="316" width="22" height="72" className="steel light" />
      <line x1="44" y1="352" x2="712" y2="352" className="axis" />
      <line x1="70" y1="302" x2="262" y2="302" className="axis" />
    </g>
  );
}

function Balloon({
  feature,
  selected,
  onSelect,
}: {
  feature: Feature;
  selected: boolean;
  onSelect: (key: string) => void;
}) {
  const [ax = 0, ay = 0] = feature.anchor;
  const [lx = 0, ly = 0] = feature.label;
  const result = feature.left ?? feature.found;
  const call = result?.verdict?.call ?? null;
  const state = result ? (call ?? 'measured') : 'open';
  const value = result ? result.text : 'to measure';
  const choose = () => onSelect(feature.key);
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={selected}
      aria-label={`${feature.number} ${feature.name}: ${value}${call ? `, ${call}` : ''}`}
      className={`balloon state-${state.toLowerCase().replace(' ', '-')}${selected ? ' selected' : ''}`}
      onClick={choose}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === ' ') {
          event.preventDefault();
          choose();
        }
      }}
    >
      <line x1={ax} y1={ay} x2={lx} y2={ly} className="leader" />
      <circle cx={ax} cy={ay} r="4" className="leader-end" />
      <rect x={lx - 24} y={ly - 34} width="172" height="68" className="touch" />
      <Ring x={lx} y={ly} call={state} selected={selected} />
      <text x={lx} y={ly + 6} textAnchor="middle" className="balloon-number">
        {feature.number}
      </text>
      <text x={lx + 28} y={ly - 3} className="balloon-name">
        {feature.name}
      </text>
      <text x={lx + 28} y={ly + 17} className="balloon-value">
        {value}
        {call && call !== 'Keep' && <tspan className="balloon-call"> · {call}</tspan>}
      </text>
    </g>
  );
}

/** The verdict's shape round the number. */
function Ring({ x, y, call, selected }: { x: number; y: number; call: string; selected: boolean }) {
  const circle = { cx: x, cy: y, r: 19 };
  if (selected) return <circle {...circle} className="ring filled" />;
  const dashes: Record<string, string> = { open: '1 5', Watch: '89.5 29.8', 'Measure again': '6 6' };
  return (
    <>
      <circle
        {...circle}
        className="ring"
        strokeDasharray={dashes[call] ?? 'none'}
        transform={`rotate(-90 ${x} ${y})`}
      />
      {call === 'Change' && <path d={`M${x} ${y - 27} v12 M${x} ${y + 15} v12`} className="bar" />}
    </>
  );
}
