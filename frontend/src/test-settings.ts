import type { Gaskets, Held, Housing, Piece, Setting, Shaft, Shims, Timing } from './api/client';
import { WORKING } from './test-builders';

/** Gaps to set and what sets them, as the server tells them; beside `test-builders`. */

type Part<T> = Partial<T>;

export const aGap = (key: string, name: string, more: Part<Held> = {}): Held => ({
  key,
  name,
  low: '',
  high: '',
  target: '',
  low_mm: 0,
  high_mm: 0,
  target_mm: 0,
  derived: false,
  gap: '',
  gap_mm: null,
  expanded_mm: 0,
  verdict: '',
  proofs: [],
  ...more,
});

export const aTry = (
  number: number,
  more: Part<Setting['tries'][number]> = {},
): Setting['tries'][number] => ({
  id: `t${number}`,
  number,
  set_by: '',
  checked: '',
  gauge: '',
  gap: '',
  gap_mm: 0,
  expanded_mm: 0,
  verdict: '',
  next: '',
  by: '',
  at: '',
  working: null,
  opened: false,
  struck_reason: '',
  ...more,
});

export const aPiece = (um: number, count: number): Piece => ({ um, text: (um / 1000).toString(), count });

export const byHousing = (more: Part<Housing> = {}): Housing => ({
  kind: 'housing',
  diameter: '',
  lead: '',
  hand: 'right',
  per_step: '',
  school: '',
  zero_found: true,
  prescribed: '',
  lash: '',
  lash_does: '',
  lash_seen: null,
  position_deg: 0,
  target_deg: 0,
  degrees_per_mm: 1,
  arc: '',
  check: null,
  check_agrees: true,
  check_working: null,
  ...more,
});

export const byGaskets = (more: Part<Gaskets> = {}): Gaskets => ({
  kind: 'gaskets',
  now: [],
  next: [],
  out: [],
  into: [],
  box: [],
  possible: true,
  ...more,
});

export const aShaft = (name: string, next: Piece[]): Shaft => ({
  name,
  now: [],
  next,
  out: [],
  into: [],
  front_mm: null,
  back_mm: null,
  next_front_mm: null,
  next_back_mm: null,
});

export const byShims = (more: Part<Shims>): Shims => ({
  kind: 'shims',
  shafts: [],
  front: '',
  back: '',
  difference: '',
  box: [],
  ...more,
});

export const byTiming = (more: Part<Timing>): Timing => ({
  kind: 'timing',
  toward: '',
  arc: '',
  angle_deg: 0,
  pitch: '',
  marked: '',
  ...more,
});

/** One gap to set, by a bearing housing, before the first try. */
export const aSetting = (more: Part<Setting> = {}): Setting => ({
  sets: 'gap',
  name: 'end clearance',
  place: 'under the head',
  faces: [],
  means: byHousing({ arc: '18.7' }),
  zero: null,
  target: '0.15',
  low: '0.13',
  high: '0.18',
  target_mm: 0.15,
  low_mm: 0.13,
  high_mm: 0.18,
  headline: '',
  details: [],
  way: 'close',
  right: false,
  working: WORKING,
  gaps: [aGap('gap', 'end clearance')],
  tries: [],
  hot: null,
  warming: null,
  feelers: [],
  mismatch: null,
  opens: [],
  asks_opened: false,
  outside: [],
  bent: [],
  ...more,
});
