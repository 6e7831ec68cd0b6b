import { COUPLING } from './coupling';
import { FIXED } from './fixed';
import { GASKET_PAIR } from './gasketPair';
import { GASKETS } from './gaskets';
import { HELIX } from './helix';
import { HOUSING } from './housing';
import type { MeansKind, MeansParts } from './kinds';
import { RING } from './ring';
import { SHIMS } from './shims';
import { TAP } from './tap';
import { TIMING } from './timing';

const MEANS: { [K in MeansKind]: MeansParts<K> } = {
  coupling: COUPLING,
  fixed: FIXED,
  gasket_pair: GASKET_PAIR,
  gaskets: GASKETS,
  helix: HELIX,
  housing: HOUSING,
  ring: RING,
  shims: SHIMS,
  tap: TAP,
  timing: TIMING,
};

/** What the bench shows of a kind of means. */
export function partsOf<K extends MeansKind>(kind: K): MeansParts<K> {
  return MEANS[kind];
}
