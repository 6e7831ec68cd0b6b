import { useId } from 'react';
import type { Drawing } from '../api/client';
import { Hatch } from './GapBar';
import { linesOf, stateOf, type DrawnFeature } from './stateOf';

interface Props {
  drawing: Drawing;
  features: DrawnFeature[];
  selected: string;
  onSelect: (key: string) => void;
}

interface RoomProps extends Omit<Props, 'drawing'> {
  drawing: Drawing | undefined;
  /** It could not be had. */
  lost: boolean;
}

/** The drawing; until it is there its room, and where it cannot be had a word. */
export function PumpOrRoom({ drawing, lost, ...rest }: RoomProps) {
  if (drawing) return <PumpDrawing drawing={drawing} {...rest} />;
  if (lost)
    return <p className="quiet">The drawing could not be had. In Inspect the gaps can be chosen by name.</p>;
  return <div className="drawing-room" aria-busy="true" />;
}

type View = Drawing['views'][number];
type Place = Drawing['numbers'][number];

/** The pump with its gaps drawn wide: round it each measured thing with its number, its state by shape and its value. */
export function PumpDrawing({ drawing, features, selected, onSelect }: Props) {
  const of = new Map(features.map((feature) => [feature.key, feature]));
  const numbered = drawing.numbers.flatMap((place) => {
    const feature = of.get(place.key);
    return feature ? [{ place, feature, inHand: feature.key === selected }] : [];
  });
  // Drawn last, the one in hand lies on top.
  const inOrder = [...numbered.filter((one) => !one.inHand), ...numbered.filter((one) => one.inHand)];
  return (
    <svg
      viewBox={`0 0 ${drawing.width} ${drawing.height}`}
      className={`pump-drawing${selected ? ' in-hand' : ''}`}
      role="group"
      aria-label={`The pump with its numbered gaps, ${drawing.views.map((view) => view.name).join(' and ')}`}
    >
      {drawing.views.map((view, i) => (
        <PumpView key={i} view={view} />
      ))}
      <g aria-hidden="true">
        {inOrder.map(({ place, feature, inHand }) => (
          <g key={place.key} className={`${stateClass(feature)}${inHand ? ' selected' : ''}`}>
            <line
              x1={place.spot[0]}
              y1={place.spot[1]}
              x2={place.port[0]}
              y2={place.port[1]}
              className="leader"
            />
            <circle cx={place.spot[0]} cy={place.spot[1]} r="3" className="leader-end" />
            {inHand && <Stations place={place} feature={feature} />}
          </g>
        ))}
      </g>
      {inOrder.map(({ place, feature, inHand }) => (
        <NumberOf
          key={place.key}
          place={place}
          feature={feature}
          drawing={drawing}
          selected={inHand}
          onSelect={onSelect}
        />
      ))}
    </svg>
  );
}

export function PumpView({ view }: { view: View }) {
  const near = useId();
  const far = useId();
  const fills: Record<string, string> = { hatched: `url(#${near})`, 'hatched-other': `url(#${far})` };
  return (
    <g aria-hidden="true" transform={`translate(${view.x} ${view.y}) scale(${view.scale})`}>
      <Hatch id={near} scale={1 / view.scale} />
      <Hatch id={far} turn={-45} scale={1 / view.scale} />
      {view.marks.map((mark, i) => (
        <path
          key={i}
          d={mark.path}
          data-of={mark.of || undefined}
          className={`outlined ${fills[mark.style] ? 'metal' : mark.style}`}
          fill={fills[mark.style]}
        />
      ))}
    </g>
  );
}

/** Where the part in hand is measured: filled where it was. */
function Stations({ place, feature }: { place: Place; feature: DrawnFeature }) {
  const taken = new Set(
    feature.readings.filter((r) => r.phase === 'found' && !r.struck_reason).map((r) => r.station),
  );
  // Where several lie at one place, what is still to be measured lies on top.
  const inOrder = [...place.stations].sort((a, b) => Number(taken.has(b.key)) - Number(taken.has(a.key)));
  return inOrder.map(({ key, x, y }) => (
    <rect
      key={key}
      x={x - 4}
      y={y - 4}
      width="8"
      height="8"
      className={`station-mark${taken.has(key) ? ' taken' : ''}`}
    />
  ));
}

const slug = (state: string): string => state.toLowerCase().replace(' ', '-');

function stateClass(feature: DrawnFeature): string {
  return `state-${slug(stateOf(feature).verdict ?? (feature.done ? 'measured' : 'open'))}`;
}

interface NumberProps {
  place: Place;
  feature: DrawnFeature;
  drawing: Drawing;
  selected: boolean;
  onSelect: (key: string) => void;
}

/** A number in its ring with its two lines; all of its row is its key. */
function NumberOf({ place, feature, drawing, selected, onSelect }: NumberProps) {
  const { ring_px, row_px, width } = drawing;
  const { x, y, right } = place;
  const { value, verdict } = stateOf(feature);
  const choose = () => onSelect(feature.key);
  const said = [`${feature.number} ${feature.name}: ${value}`, verdict, feature.suspect ? 'suspect' : ''];
  const edge = right ? x - ring_px : 0;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={selected}
      aria-label={said.filter(Boolean).join(', ')}
      className={`balloon ${stateClass(feature)}${selected ? ' selected' : ''}`}
      onClick={choose}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === ' ') {
          event.preventDefault();
          choose();
        }
      }}
    >
      <rect
        x={edge}
        y={y - row_px / 2}
        width={right ? width - edge : x + ring_px}
        height={row_px}
        className="touch"
      />
      <Ring
        x={x}
        y={y}
        r={ring_px - 1.5}
        verdict={verdict ?? (feature.done ? 'measured' : 'open')}
        filled={selected}
      />
      <text x={x} y={y + 5.5} textAnchor="middle" className="balloon-number">
        {feature.number}
      </text>
      <Lines place={place} feature={feature} named={drawing.named} />
    </g>
  );
}

/** What stands beside a number. */
function Lines({ place, feature, named }: { place: Place; feature: DrawnFeature; named: boolean }) {
  const { text_x, y, right } = place;
  const [first, second] = linesOf(feature, place.name, named);
  return (
    <g textAnchor={right ? 'start' : 'end'}>
      <text x={text_x} y={second ? y - 3 : y + 5} className={named ? 'balloon-name' : 'balloon-value'}>
        {first}
      </text>
      {second && (
        <text x={text_x} y={y + 13} className="balloon-value">
          {second}
        </text>
      )}
    </g>
  );
}

/** The verdict's shape round the number. */
function Ring({
  x,
  y,
  r,
  verdict,
  filled,
}: {
  x: number;
  y: number;
  r: number;
  verdict: string;
  filled: boolean;
}) {
  const circle = { cx: x, cy: y, r };
  if (filled) return <circle {...circle} className="ring filled" />;
  const round = 2 * Math.PI * r;
  const dashes: Record<string, string> = {
    open: '1 4',
    Watch: `${0.75 * round} ${0.25 * round}`,
    'Measure again': '5 5',
  };
  return (
    <>
      <circle
        {...circle}
        className="ring"
        strokeDasharray={dashes[verdict] ?? 'none'}
        transform={`rotate(-90 ${x} ${y})`}
      />
      {verdict === 'Change' && <path d={`M${x} ${y - r - 4} v8 M${x} ${y + r - 4} v8`} className="bar" />}
    </>
  );
}
