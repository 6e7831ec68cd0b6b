import { COUPLING } from './coupling';
import { FIXED } from './fixed';
import { GASKETS } from './gaskets';
import { HOUSING } from './housing';
import type { MeansKind, MeansParts } from './kinds';
import { RING } from './ring';
import { SHIMS } from './shims';
import { TIMING } from './timing';

const MEANS: { [K in MeansKind]: MeansParts<K> } = {
  coupling: COUPLING,
  fixed: FIXED,
  gaskets: GASKETS,
  housing: HOUSING,
  ring: RING,
  shims: SHIMS,
  timing: TIMING,
};

/** What the bench shows of a kind of means. */
export function partsOf<K extends MeansKind>(kind: K): MeansParts<K> {
  return MEANS[kind];
}
