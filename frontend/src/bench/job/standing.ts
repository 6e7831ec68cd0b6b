import type { Setting } from '../../api/client';

/** The tries that count: those that were struck out stay in sight and say nothing of the gap. */
export const standing = (setting: Setting | null | undefined): Setting['tries'] =>
  setting?.tries.filter((t) => !t.struck_reason) ?? [];
