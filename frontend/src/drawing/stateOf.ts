import type { Feature } from '../api/client';

/** What is known of a feature in a word or two: its size, else what was seen, else that it is open. */
export function stateOf(feature: Feature): { value: string; verdict: string | null } {
  const verdict = (feature.judged_left ?? feature.judged)?.verdict ?? null;
  const size = (feature.left ?? feature.found)?.text;
  // A verdict that is not Keep says more than what was seen.
  return { value: size ?? (told(verdict) ? '' : seen(feature)) ?? openWords(feature), verdict };
}

function seen(feature: Feature): string | undefined {
  const look = feature.look_left ?? feature.look;
  return look && look.damages.length > 1 ? `${look.damages.length} marks` : look?.words;
}

function openWords(feature: Feature): string {
  if (!feature.wanted && feature.kind !== 'check') return 'no size given';
  const verb = feature.kind === 'check' ? 'look' : 'measure';
  return isFirst(feature) ? `${verb} first` : `to ${verb}${verb === 'look' ? ' at' : ''}`;
}

const isFirst = (feature: Feature) => feature.suspect > 0 && feature.wanted && feature.stations.length > 0;

/** A verdict that is written beside the size; Keep is the closed ring alone. */
const told = (verdict: string | null): string => (verdict && verdict !== 'Keep' ? verdict : '');

/** Words too long to stand beside a size. */
const SHORT: Record<string, string> = { 'Measure again': 'again' };

/** The two lines beside a number: name, and what is known; without room for names, the size and its verdict. */
export function linesOf(feature: Feature, name: string, named: boolean): [string, string] {
  const { value, verdict } = stateOf(feature);
  const call = told(verdict);
  const short = SHORT[call] ?? call;
  if (named) return [name, value && short ? `${value} · ${short}` : value || short];
  if (feature.done || verdict) return [value, short];
  const open = feature.wanted || feature.kind === 'check';
  return [isFirst(feature) ? 'first' : open ? 'to do' : '', ''];
}
