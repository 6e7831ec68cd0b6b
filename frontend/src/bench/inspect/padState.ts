import { ApiError, type Feature, type Gauge, type Job } from '../../api/client';

/** What the pad holds beside what is on the sheet: the station and the gauge in hand, and what is typed but not entered. */
export interface PadState {
  station: string;
  gauge: string;
  /** The leaf that goes, once it was entered; the one that does not is typed next. */
  goes: string | null;
  /** A part that is not at 20 °C is in hand, of this material where the sheet does not say. */
  warm: boolean;
  material: string;
  /** What the receiver said of the reading it sent. */
  arrived: string;
  /** What is open over the pad. */
  open: 'look' | 'paste' | null;
  /** The reading that is being struck out. */
  striking: string | null;
}

export type PadAction =
  /** Something was taken into hand, opened or put away. */
  | { type: 'set'; change: Partial<PadState> }
  /** A leaf that goes was entered: the one that does not is next. */
  | { type: 'goes'; leaf: string }
  /** A reading was entered at a station; the next that is free comes into hand. */
  | { type: 'entered'; from: string; next: string | undefined; typed: boolean }
  /** A number that was not taken is typed anew at its station. */
  | { type: 'anew'; station: string };

/** What the pad holds after something was done. */
export function padReducer(state: PadState, action: PadAction): PadState {
  switch (action.type) {
    case 'set':
      return { ...state, ...action.change };
    case 'goes':
      return { ...state, goes: action.leaf };
    case 'entered': {
      // A pulled reading may come when another station is in hand already: that one stays, and so does what is half typed.
      const station = action.next && state.station === action.from ? action.next : state.station;
      return { ...state, station, goes: action.typed ? null : state.goes };
    }
    case 'anew':
      return { ...state, station: action.station, goes: null };
  }
}

/** The pad as a part comes into hand: the first station that is free, and the gauge last used on it. */
export function padFor(job: Job, feature: Feature, taken: ReadonlySet<string>): PadState {
  return {
    station: feature.stations.find((s) => !taken.has(s.key))?.key ?? feature.stations[0]?.key ?? '',
    gauge: feature.readings.at(-1)?.gauge || feature.gauge || (inOrder(job.gauges, feature)[0]?.tag ?? ''),
    goes: null,
    warm: false,
    material: '',
    arrived: '',
    open: null,
    striking: null,
  };
}

/** Gauges made for this first, then the others that measure lengths at all. */
export function inOrder(gauges: Gauge[], feature: Feature): Gauge[] {
  const made = feature.made.flatMap((tag) => gauges.filter((g) => g.tag === tag));
  return [...made, ...gauges.filter((g) => g.lengths && !made.includes(g))];
}

/** The station after the one in hand that is not held: by a reading, or by a number that waits to be asked about. */
export function nextFree(
  stations: Feature['stations'],
  station: string,
  held: ReadonlySet<string>,
): string | undefined {
  const here = stations.findIndex((s) => s.key === station);
  return [...stations.slice(here + 1), ...stations.slice(0, Math.max(here, 0))].find((s) => !held.has(s.key))
    ?.key;
}

/** The one so many places on, round and round. */
export function turned<T>(all: readonly T[], index: number, by: number): T | undefined {
  return all[(index + by + all.length) % all.length];
}

/** The number itself is wrong, or hardly possible: typing another puts it right. */
export function isWrong(error: Error): boolean {
  return error instanceof ApiError && ['field', 'unlikely', 'ambiguous'].includes(error.details.code);
}
