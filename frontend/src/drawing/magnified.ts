import type { Feature, Result } from '../api/client';

/** Room in each face for its name, in px. */
const FACE = 104;
/** Of what is shown: left free on either side. */
const AROUND = 0.14;

export type Scale = (mm: number) => number;

/** What a gap is to be set to. */
export interface Window {
  low_mm: number;
  high_mm: number;
  low: string;
  high: string;
}

/** What there is to draw, in mm: the two surfaces and all that is marked between them. */
export interface Seen {
  result: Result | null;
  near: number;
  far: number;
  limits: number[];
  later: number | null;
  /** What it is to be: as new, or as it is set. */
  band: { low: number; high: number; text: string } | null;
  x: Scale;
}

const isSaid = (mm: number | null | undefined): mm is number => mm !== null && mm !== undefined;

/** Small by nature: measured from nothing at all. */
const isGap = (feature: Feature) => ['pair', 'gap', 'runout', 'flatness'].includes(feature.kind);

/** As new, in the middle. */
function newOf({ new_mm: [low, high] }: Feature): number | null {
  return isSaid(low) && isSaid(high) ? (low + high) / 2 : null;
}

/** Where the surface of a part is: as it was found, before that where it would be new. */
const surfaceOf = (feature: Feature): number | null => feature.found?.value_mm ?? newOf(feature);

/** A part seen close, its partner beside it; nothing where there is no size at all. */
export function seenOf(
  feature: Feature,
  mate: Feature | undefined,
  window: Window | undefined,
  width: number,
): Seen | null {
  const result = feature.found;
  const limits = [feature.lower_mm, feature.upper_mm].filter(isSaid);
  const gap = isGap(feature);
  const later = feature.forecast?.size_at_planned_mm ?? null;
  const own = surfaceOf(feature);
  const beyond = mate ? surfaceOf(mate) : null;
  const band = bandOf(feature, window);
  const shown = [band?.low, band?.high, ...limits, beyond, later, ...spread(result)].filter(isSaid);
  if (!shown.length) return null;
  const { x, from, to } = scaled(gap ? [0, ...shown] : shown, width);
  const at = { own, beyond, from, to };
  const [near, far] = gap ? [0, own ?? to] : surfaces(feature.kind === 'external', at);
  return { result, near, far, limits, later, band, x };
}

interface At {
  own: number | null;
  beyond: number | null;
  from: number;
  to: number;
}

/** Of a size the own face and its partner's, each at the edge of the picture where it is not known. */
function surfaces(outside: boolean, { own, beyond, from, to }: At): [number, number] {
  return outside ? [own ?? from, beyond ?? to] : [beyond ?? from, own ?? to];
}

const spread = (result: Result | null) =>
  result ? [result.value_mm - result.expanded_mm, result.value_mm + result.expanded_mm] : [];

function bandOf(feature: Feature, window: Window | undefined): Seen['band'] {
  if (window)
    return { low: window.low_mm, high: window.high_mm, text: `window ${window.low} to ${window.high}` };
  const [low, high] = feature.new_mm;
  return isSaid(low) && isSaid(high) ? { low, high, text: `new ${feature.new_text}` } : null;
}

/** From mm to px: all that is shown between the names of the faces, from one of them to the other. */
function scaled(shown: number[], width: number): { x: Scale; from: number; to: number } {
  const [low, high] = [Math.min(...shown), Math.max(...shown)];
  const span = high - low || 0.1;
  const [from, to] = [low === 0 ? 0 : low - AROUND * span, high + AROUND * span];
  return { from, to, x: (mm) => FACE + ((mm - from) / (to - from)) * (width - 2 * FACE) };
}
