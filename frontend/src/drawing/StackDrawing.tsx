import { useId } from 'react';
import type { Stack, StackPart } from '../api/client';
import { Hatch } from './GapBar';
import { PARTS } from './stackParts';

const WIDTH = 700;
const AXIS = 112;
const SHAFT = 15;
const EDGE = 50;
/** Room beside the numbers for what each end is called. */
const NAMED_EDGE = 84;
const WIDEST = 120;
/** More would lie over one another: the part in hand is shown with its neighbours. */
const MOST = 12;

interface Props {
  stack: Stack;
  /** The part shown below. */
  chosen: string;
  onChoose: (key: string) => void;
}

/** The parts drawn apart along the shaft in the order of fitting: what is in is solid, what comes next is in blue. */
export function StackDrawing({ stack, chosen, onChoose }: Props) {
  const hatch = useId();
  const at = stack.parts.findIndex((p) => p.key === chosen);
  const from = Math.max(0, Math.min(at - MOST / 2, stack.parts.length - MOST));
  const shown = stack.parts.slice(from, from + MOST);
  const edge = stack.ends.length ? NAMED_EDGE : EDGE;
  const step = Math.min((WIDTH - 2 * edge) / shown.length, WIDEST);
  const first = WIDTH / 2 - (step * (shown.length - 1)) / 2;
  const [left = 'rotor', right = 'drive'] = stack.ends;
  const scale = Math.min(step / 46, 1.2);
  // On the shaft there is room for the names; otherwise beside the numbers.
  const named = stack.ends.length ? 24 : AXIS + 36;
  return (
    <svg viewBox={`0 0 ${WIDTH} 206`} className="stack-drawing" role="img" aria-label={described(stack)}>
      <Hatch id={hatch} />
      {!stack.ends.length && (
        <rect x="0" y={AXIS - SHAFT} width={WIDTH} height={2 * SHAFT} className="steel light" />
      )}
      <path d={`M0 ${AXIS} H${WIDTH}`} className="axis" />
      {shown.map((part, i) => (
        <Part
          key={part.key}
          part={part}
          number={from + i + 1}
          x={first + i * step}
          half={step / 2}
          scale={scale}
          hatch={hatch}
          state={part.fitted ? 'in' : part.key === stack.next ? 'next' : 'later'}
          chosen={part.key === chosen}
          onChoose={() => onChoose(part.key)}
        />
      ))}
      <text x="2" y={named} className="note">
        ← {left}
      </text>
      <text x={WIDTH - 2} y={named} textAnchor="end" className="note">
        {right} →
      </text>
    </svg>
  );
}

interface PartProps {
  part: StackPart;
  number: number;
  x: number;
  half: number;
  scale: number;
  hatch: string;
  state: 'in' | 'next' | 'later';
  chosen: boolean;
  onChoose: () => void;
}

function Part({ part, number, x, half, scale, hatch, state, chosen, onChoose }: PartProps) {
  // Declared pointing towards the drive; towards the rotor it is the mirror image.
  const flip = part.points === 'rotor' ? -1 : 1;
  const outlines = PARTS[part.shape] ?? [];
  return (
    <g className={`stack-part is-${state}${chosen ? ' chosen' : ''}`} onClick={onChoose}>
      <rect x={x - half} y="0" width={2 * half} height="206" className="touch" />
      {[1, -1].map((side) => (
        <g
          key={side}
          transform={`translate(${x} ${AXIS - side * SHAFT}) scale(${flip * scale} ${side * scale}) translate(-20 0)`}
        >
          {outlines.map((o, i) => (
            <path key={i} d={o.d} className={o.as} fill={o.as === 'metal' ? `url(#${hatch})` : undefined} />
          ))}
        </g>
      ))}
      <circle cx={x} cy="18" r="15" className="stack-ring" />
      <text x={x} y="23.5" textAnchor="middle" className="stack-number">
        {number}
      </text>
      {part.points && (
        <path
          d={part.points === 'rotor' ? 'M14 0 H-14 l8 -6 m-8 6 l8 6' : 'M-14 0 H14 l-8 -6 m8 6 l-8 6'}
          transform={`translate(${x} 193)`}
          className="stack-arrow"
        />
      )}
    </g>
  );
}

function described(stack: Stack): string {
  const [left = 'rotor', right = 'drive'] = stack.ends;
  const towards = (points: string) => (points === 'rotor' ? left : right);
  const next = stack.parts.find((p) => p.key === stack.next)?.name ?? 'nothing, it is complete';
  const order = stack.parts.map(
    (p, i) => `${i + 1} ${p.name}${p.points ? ` pointing to the ${towards(p.points)}` : ''}`,
  );
  return `${stack.name}, from the ${left} to the ${right}: ${order.join(', ')}. Next: ${next}.`;
}
