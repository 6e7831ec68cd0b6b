import type { Feature } from '../api/client';

/** What is drawn of a part: that of a job, or of a pump between two. */
export type DrawnFeature = Pick<
  Feature,
  'key' | 'number' | 'name' | 'kind' | 'done' | 'wanted' | 'suspect'
> & {
  stations: unknown[];
  readings: { phase: string; struck_reason: string; station: string }[];
  found: { text: string } | null;
  left: { text: string } | null;
  judged: { verdict: string } | null;
  judged_left: { verdict: string } | null;
  look: { damages: string[]; words: string } | null;
  look_left: { damages: string[]; words: string } | null;
  /** Said where nothing is known of it. */
  open?: string;
};

/** What is known of a feature in a word or two: its size, else what was seen, else that it is open. */
export function stateOf(feature: DrawnFeature): { value: string; verdict: string | null } {
  const verdict = (feature.judged_left ?? feature.judged)?.verdict ?? null;
  const size = (feature.left ?? feature.found)?.text;
  // A verdict that is not Keep says more than what was seen.
  return { value: size ?? (told(verdict) ? '' : seen(feature)) ?? openWords(feature), verdict };
}

function seen(feature: DrawnFeature): string | undefined {
  const look = feature.look_left ?? feature.look;
  return look && look.damages.length > 1 ? `${look.damages.length} marks` : look?.words;
}

function openWords(feature: DrawnFeature): string {
  if (feature.open !== undefined) return feature.open;
  if (!feature.wanted && feature.kind !== 'check') return 'no size given';
  const verb = feature.kind === 'check' ? 'look' : 'measure';
  return isFirst(feature) ? `${verb} first` : `to ${verb}${verb === 'look' ? ' at' : ''}`;
}

const isFirst = (feature: DrawnFeature) =>
  feature.suspect > 0 && feature.wanted && feature.stations.length > 0;

/** A verdict that is written beside the size; Keep is the closed ring alone. */
const told = (verdict: string | null): string => (verdict && verdict !== 'Keep' ? verdict : '');

/** Words too long to stand beside a size. */
const SHORT: Record<string, string> = { 'Measure again': 'again' };

/** Under the name; without room for it, in two lines, the last word in the second. */
function beside(name: string, words: string, named: boolean): [string, string] {
  if (named) return [name, words];
  const at = words.lastIndexOf(' ');
  return at < 0 ? [words, ''] : [words.slice(0, at), words.slice(at + 1)];
}

/** The two lines beside a number: name, and what is known; without room for names, the size and its verdict. */
export function linesOf(feature: DrawnFeature, name: string, named: boolean): [string, string] {
  const { value, verdict } = stateOf(feature);
  // Between two overhauls the ring alone tells the verdict: the room is for how long is left.
  if (feature.open !== undefined) return beside(name, value, named);
  const short = SHORT[told(verdict)] ?? told(verdict);
  if (named) return [name, value && short ? `${value} · ${short}` : value || short];
  if (feature.done || verdict) return [value, short];
  const open = feature.wanted || feature.kind === 'check';
  return [isFirst(feature) ? 'first' : open ? 'to do' : '', ''];
}
