import type { Drawing } from '../api/client';
import { PumpView } from './PumpDrawing';

interface Props {
  drawing: Drawing;
  /** Whether something is typed of a number. */
  isTyped: (key: string) => boolean;
  onSelect: (key: string) => void;
}

/** A pump with its numbers, each a key to the row it is typed in. */
export function PlainDrawing({ drawing, isTyped, onSelect }: Props) {
  if (!drawing.views.length) return <p className="quiet">Nothing can be drawn yet.</p>;
  const { ring_px, row_px, width } = drawing;
  return (
    <svg
      viewBox={`0 0 ${width} ${drawing.height}`}
      className="pump-drawing"
      role="group"
      aria-label={`The pump with its numbers, ${drawing.views.map((view) => view.name).join(' and ')}`}
    >
      {drawing.views.map((view, i) => (
        <PumpView key={i} view={view} />
      ))}
      {drawing.numbers.map(({ key, number, name, x, y, right, spot, port }) => (
        <g
          key={key}
          role="button"
          tabIndex={0}
          aria-label={`${number} ${name}: ${isTyped(key) ? 'typed' : 'not said'}`}
          className={isTyped(key) ? 'balloon selected' : 'balloon'}
          onClick={() => onSelect(key)}
          onKeyDown={(event) => {
            if (event.key === 'Enter' || event.key === ' ') {
              event.preventDefault();
              onSelect(key);
            }
          }}
        >
          <line x1={spot[0]} y1={spot[1]} x2={port[0]} y2={port[1]} className="leader" />
          <rect
            x={right ? x - ring_px : 0}
            y={y - row_px / 2}
            width={right ? width - x + ring_px : x + ring_px}
            height={row_px}
            className="touch"
          />
          <circle cx={x} cy={y} r={ring_px - 1.5} className={isTyped(key) ? 'ring filled' : 'ring'} />
          <text x={x} y={y + 5.5} textAnchor="middle" className="balloon-number">
            {number}
          </text>
        </g>
      ))}
    </svg>
  );
}
