import type { Held } from '../api/client';

/** A gap, or the narrowest of its places. */
export function narrowest(gaps: Held[], key: string): Held | undefined {
  const places = gaps.filter((g) => g.key === key || g.key.startsWith(`${key}:`));
  return places.sort((a, b) => (a.gap_mm ?? 0) - (b.gap_mm ?? 0))[0];
}
