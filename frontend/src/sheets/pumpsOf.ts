import type { SheetLine } from '../api/client';

/** The pumps of a sheet, the first few by name. */
export function pumpsOf({ pumps, used }: Pick<SheetLine, 'pumps' | 'used'>): string {
  if (!used) return 'No pump uses it.';
  const more = used > pumps.length ? ` and ${used - pumps.length} more` : '';
  return `Pumps: ${pumps.join(', ')}${more}.`;
}
