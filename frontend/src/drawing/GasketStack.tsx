import { useId } from 'react';
import type { Gaskets, Piece } from '../api/client';
import { capital } from '../app/words';
import { Hatch } from './GapBar';

const WIDTH = 250;
const TALLEST = 250;
const FLOOR = 424;

/** Two stacks side by side, thickness to one scale: what is there now, and what has to be. */
export function GasketStack({ gaskets, unit, place }: { gaskets: Gaskets; unit: string; place: string }) {
  const hatch = useId();
  const tallest = Math.max(sum(gaskets.now), sum(gaskets.next), 1);
  const scale = TALLEST / tallest;
  const same = JSON.stringify(gaskets.now) === JSON.stringify(gaskets.next);
  return (
    <svg viewBox="0 0 660 520" className="stack-view" role="img" aria-label={described(gaskets, unit)}>
      <Hatch id={hatch} />
      <text x="170" y="24" textAnchor="middle" className="stack-title">
        {gaskets.now.length ? `${capital(place)} now` : 'Nothing fitted yet'}
      </text>
      <text x="490" y="24" textAnchor="middle" className="stack-title">
        {same ? 'Stays' : 'Next'}
      </text>
      <Pile
        x={45}
        pieces={gaskets.now}
        marked={gaskets.out}
        verb="out"
        scale={scale}
        hatch={hatch}
        unit={unit}
      />
      <Pile
        x={365}
        pieces={gaskets.next}
        marked={gaskets.into}
        verb="in"
        scale={scale}
        hatch={hatch}
        unit={unit}
      />
      <path d="M306 250 h36 m-12 -10 l12 10 l-12 10" className="between" />
      <text x="330" y="500" textAnchor="middle" className="note">
        Thicknesses to one scale. {capital(place.replace('under the ', ''))} above.
      </text>
    </svg>
  );
}

function sum(pieces: Piece[]): number {
  return pieces.reduce((total, p) => total + p.um * p.count, 0);
}

interface PileProps {
  x: number;
  pieces: Piece[];
  marked: Piece[];
  verb: 'in' | 'out';
  scale: number;
  hatch: string;
  unit: string;
}

function Pile({ x, pieces, marked, verb, scale, hatch, unit }: PileProps) {
  const sheets = laidUp(pieces, marked, scale);
  const top = sheets.at(-1)?.y ?? FLOOR;
  return (
    <g>
      <rect x={x} y={FLOOR} width={WIDTH} height="46" className="metal" fill={`url(#${hatch})`} />
      {sheets.map((s) => (
        <g key={s.key}>
          <rect
            x={x + 14}
            y={s.y}
            width={WIDTH - 28}
            height={s.height}
            className={s.moves ? `gasket moves-${verb}` : 'gasket'}
          />
          <text
            x={x + WIDTH / 2}
            y={s.y + s.height / 2 + 6}
            textAnchor="middle"
            className="gasket-text"
            opacity={s.height < 15 ? 0 : 1}
          >
            {s.text}
            {s.moves ? ` ${unit}, ${verb === 'in' ? 'goes in' : 'comes out'}` : ` ${unit}`}
          </text>
        </g>
      ))}
      <rect
        x={x}
        y={Math.max(top - 46, 40)}
        width={WIDTH}
        height="46"
        className="metal"
        fill={`url(#${hatch})`}
      />
    </g>
  );
}

interface Sheet {
  key: string;
  y: number;
  height: number;
  text: string;
  moves: boolean;
}

/** Every gasket with its place in the pile, from the casing up, and whether it is one of those that move. */
function laidUp(pieces: Piece[], marked: Piece[], scale: number): Sheet[] {
  const sheets: Sheet[] = [];
  for (const piece of pieces) {
    const moving = marked.find((p) => p.um === piece.um)?.count ?? 0;
    for (let i = 0; i < piece.count; i++) {
      const height = piece.um * scale;
      const y = (sheets.at(-1)?.y ?? FLOOR) - height;
      sheets.push({ key: `${piece.um}-${i}`, y, height, text: piece.text, moves: i < moving });
    }
  }
  return sheets;
}

function described(gaskets: Gaskets, unit: string): string {
  const list = (pieces: Piece[]) =>
    pieces.map((p) => `${p.count} of ${p.text} ${unit}`).join(', ') || 'nothing';
  return `Now ${list(gaskets.now)}; next ${list(gaskets.next)}; out ${list(gaskets.out)}; in ${list(gaskets.into)}.`;
}
