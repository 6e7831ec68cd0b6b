import { useId } from 'react';
import type { Feature, Result } from '../api/client';
import { Hatch } from './GapBar';
import { seenOf, type Scale, type Seen, type Window } from './magnified';

interface Props {
  feature: Feature;
  /** The two faces, the nearer to its zero first. */
  faces: string[];
  /** The size of the other face of a running clearance, where it is one. */
  mate: Feature | undefined;
  /** What it is to be set to, where it is set. */
  window: Window | undefined;
  width: number;
}

const HEIGHT = 84;
const TOP = 20;
const DEEP = 42;
const MIDDLE = TOP + DEEP / 2;
/** Between the words of two marks at one place. */
const APART = 4;
/** So many px are a millimetre on paper. */
const PX_PER_MM = 96 / 25.4;

/**
 * The gap in hand, wide open between its two faces: what it may be, its limit, what it measured with its doubt, and where it is
 * forecast to be. Of a size that is no gap its own face is drawn, and beyond it that of its partner.
 */
export function Magnifier({ feature, faces, mate, window, width }: Props) {
  const seen = seenOf(feature, mate, window, width);
  if (!seen) return <p className="magnifier quiet">The sheet gives no size for it.</p>;
  const { result, near, far, limits, later, band, x } = seen;
  return (
    <svg
      viewBox={`0 0 ${width} ${HEIGHT}`}
      className="magnifier"
      role="img"
      aria-label={saidOf(feature, seen)}
    >
      <Face name={faces[0] ?? ''} from={0} to={x(near)} measured={!!result || feature.kind !== 'external'} />
      <Face
        name={faces[1] ?? ''}
        from={width}
        to={x(far)}
        measured={!!result || feature.kind === 'external'}
      />
      {band && <Band band={band} x={x} />}
      {limits.map((mm) => (
        <path key={mm} d={`M${x(mm)} ${TOP - 3} v${DEEP + 6}`} className="limit-line" />
      ))}
      {result && later !== null && <Later from={x(result.value_mm)} to={x(later)} />}
      {result && <Reading result={result} x={x} />}
      <Words feature={feature} band={band} x={x} />
      <Times x={x} onLeft={result !== null && x(result.value_mm) > width / 2} width={width} />
    </svg>
  );
}

function saidOf(feature: Feature, { result, band }: Seen): string {
  const size = result ? `${result.text} ± ${result.expanded_text}` : 'not measured';
  return [`${feature.name} magnified: ${size}`, band?.text, feature.limit_text].filter(Boolean).join(', ');
}

/** A face, cut, from the edge of the picture to its surface; one that was not measured is drawn thin. */
function Face({ name, from, to, measured }: { name: string; from: number; to: number; measured: boolean }) {
  const hatch = useId();
  if (!name) return null;
  return (
    <>
      <Hatch id={hatch} turn={from ? -45 : 45} />
      <rect
        x={Math.min(from, to)}
        y={TOP}
        width={Math.abs(to - from)}
        height={DEEP}
        className={`metal${measured ? '' : ' unknown'}`}
        fill={`url(#${hatch})`}
      />
      <text x={from ? from - 8 : 8} y={MIDDLE + 5} textAnchor={from ? 'end' : 'start'} className="face-name">
        {name}
      </text>
    </>
  );
}

function Later({ from, to }: { from: number; to: number }) {
  return (
    <g className="later">
      <line x1={from} x2={to} y1={MIDDLE} y2={MIDDLE} />
      <path d={`M${to} ${MIDDLE - 10} v20`} />
    </g>
  );
}

/** How much larger than life, in the corner that the reading leaves free. */
function Times({ x, onLeft, width }: { x: Scale; onLeft: boolean; width: number }) {
  return (
    <text x={onLeft ? 4 : width - 4} y={14} textAnchor={onLeft ? 'start' : 'end'} className="note">
      about {Math.round((x(1) - x(0)) / PX_PER_MM)} times
    </text>
  );
}

/** What it is to be. */
function Band({ band, x }: { band: NonNullable<Seen['band']>; x: Scale }) {
  const { low, high } = band;
  return (
    <rect
      x={x(low)}
      y={TOP + 4}
      width={Math.max(x(high) - x(low), 2)}
      height={DEEP - 8}
      className="window thin-window"
    />
  );
}

function Reading({ result, x }: { result: Result; x: Scale }) {
  const { value_mm: value, expanded_mm: doubt } = result;
  return (
    <>
      <rect
        x={x(value - doubt)}
        y={TOP + 8}
        width={x(value + doubt) - x(value - doubt)}
        height={DEEP - 16}
        className="doubt"
      />
      <line x1={x(value)} x2={x(value)} y1={TOP - 2} y2={TOP + DEEP + 2} className="value" />
      <text x={x(value)} y={14} textAnchor="middle" className="magnified-value">
        {result.text} ± {result.expanded_text}
      </text>
    </>
  );
}

/** Below: what it is to be and what the limit is, each written away from the other. */
function Words({ feature, band, x }: { feature: Feature; band: Seen['band']; x: Scale }) {
  const limit = feature.upper_mm ?? feature.lower_mm;
  const wearsUp = limit === null || !band || limit >= band.high;
  const [ofBand, ofLimit] = wearsUp ? (['end', 'start'] as const) : (['start', 'end'] as const);
  const apart = wearsUp ? APART : -APART;
  return (
    <>
      {band && (
        <text
          x={x(wearsUp ? band.high : band.low) - apart}
          y={HEIGHT - 5}
          textAnchor={ofBand}
          className="window-text"
        >
          {band.text}
        </text>
      )}
      {limit !== null && (
        <text x={x(limit) + apart} y={HEIGHT - 5} textAnchor={ofLimit} className="limit-text">
          {feature.limit_text}
        </text>
      )}
    </>
  );
}
