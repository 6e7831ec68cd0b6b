import { useId } from 'react';
import type { Carrier, Stack, StackPart } from '../api/client';
import { Hatch } from './GapBar';
import { PARTS } from './stackParts';

const WIDTH = 700;
const AXIS = 112;
const SHAFT = 15;
/** Room beside the numbers for what each end is called. */
const EDGE = 84;
const WIDEST = 120;
/** Together parts lie against each other. */
const TIGHTEST = 48;
/** More would lie over one another: the part in hand is shown with its neighbours. */
const MOST = 12;

interface Props {
  stack: Stack;
  /** The sub-assembly that is drawn; all of them as they lie in the pump where it is null. */
  carrier: Carrier | null;
  /** The part shown below. */
  chosen: string;
  onChoose: (key: string) => void;
}

/** Parts drawn apart along their carrier, or together; numbers are the order of fitting. What is in is solid, what comes next in blue. */
export function StackDrawing({ stack, carrier, chosen, onChoose }: Props) {
  const hatch = useId();
  const row = rowOf(stack, carrier);
  const at = row.findIndex((p) => p.key === chosen);
  const from = Math.max(0, Math.min(at - MOST / 2, row.length - MOST));
  const shown = row.slice(from, from + MOST);
  const step = Math.min((WIDTH - 2 * EDGE) / Math.max(shown.length, 1), carrier ? WIDEST : TIGHTEST);
  const first = WIDTH / 2 - (step * (shown.length - 1)) / 2;
  const [left, right] = endsOf(stack, carrier);
  const scale = Math.min(step / 46, 1.2);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 206`}
      className="stack-drawing"
      role="img"
      aria-label={described(stack, carrier)}
    >
      <Hatch id={hatch} />
      {(!carrier || carrier.name.toLowerCase().includes('shaft')) && (
        <rect x="0" y={AXIS - SHAFT} width={WIDTH} height={2 * SHAFT} className="steel light" />
      )}
      <path d={`M0 ${AXIS} H${WIDTH}`} className="axis" />
      {shown.map((part, i) => (
        <Part
          key={part.key}
          part={part}
          number={stack.parts.indexOf(part) + 1}
          x={first + i * step}
          half={step / 2}
          scale={scale}
          hatch={hatch}
          state={part.fitted ? 'in' : part.key === stack.next ? 'next' : 'later'}
          chosen={part.key === chosen}
          onChoose={() => onChoose(part.key)}
        />
      ))}
      <text x="2" y="24" className="note">
        ← {left}
      </text>
      <text x={WIDTH - 2} y="24" textAnchor="end" className="note">
        {right} →
      </text>
    </svg>
  );
}

/** Parts from left to right. Of a record signed before there were carriers: in the order of fitting. */
function rowOf(stack: Stack, carrier: Carrier | null): StackPart[] {
  const keys = carrier ? carrier.parts : stack.together;
  if (!stack.carriers.length) return stack.parts;
  return keys.flatMap((key) => stack.parts.find((p) => p.key === key) ?? []);
}

function endsOf(stack: Stack, carrier: Carrier | null): [string, string] {
  const [first, last] = carrier ? [carrier, carrier] : [stack.carriers[0], stack.carriers.at(-1)];
  return [first?.left ?? 'rotor', last?.right ?? 'drive'];
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
  const either = part.points ? undefined : PARTS[`${part.shape}, either way`];
  const outlines = either ?? PARTS[part.shape] ?? [];
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

function described(stack: Stack, carrier: Carrier | null): string {
  const [left, right] = endsOf(stack, carrier);
  const next = stack.parts.find((p) => p.key === stack.next)?.name ?? 'nothing, it is complete';
  const order = rowOf(stack, carrier).map((p) => {
    const towards = p.points === 'rotor' ? left : right;
    return `${stack.parts.indexOf(p) + 1} ${p.name}${p.points ? ` pointing to the ${towards}` : ''}`;
  });
  const where = carrier ? carrier.name : 'together';
  return `${stack.name}, ${where}, from the ${left} to the ${right}: ${order.join(', ')}. Next: ${next}.`;
}
