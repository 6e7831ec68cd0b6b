import { useEffect, useReducer, useRef, type RefObject } from 'react';
import type { Feature, Gauge, Job } from '../../api/client';
import { useKeys } from '../../app/keys';
import { useHow, usePull } from '../job/useJob';
import type { PadFieldHandle } from './PadField';
import {
  inOrder,
  isWrong,
  nextFree,
  padFor,
  padReducer,
  turned,
  type PadAction,
  type PadState,
} from './padState';
import { newEntry, useReadings, type Entry } from './useReadings';

/** An Enter so soon after a number is that of a gauge that ends its line with two. */
const STRAY_ENTER_MS = 700;

interface Given {
  job: Job;
  feature: Feature;
  phase: 'found' | 'left';
  /** The temperature of a warm part, as typed. */
  partAt: string;
  field: RefObject<PadFieldHandle | null>;
  onNext?: (() => void) | undefined;
}

/** What is on the sheet of this part, on its way to it, and not taken. */
function useTaken({ job, feature, phase }: Given) {
  const readings = feature.readings.filter((r) => r.phase === phase);
  const counted = readings.filter((r) => !r.struck_reason);
  const { save, failed, sent, forget } = useReadings(job, feature.key, phase);
  // On the way until the sheet shows it: between its answer and the sheet there is a moment with neither.
  const waiting = sent.filter((e) => !feature.readings.some((r) => r.id === e.id));
  const taken: ReadonlySet<string> = new Set([...counted, ...waiting].map((r) => r.station));
  const every = feature.stations.length > 0 && feature.stations.every((s) => taken.has(s.key));
  return { readings, counted, waiting, failed, taken, every, save, forget };
}

/** Decides what the pad does: which station is next, what an Enter means, what a gauge sends. It lays nothing out. */
export function usePad(given: Given) {
  const { job, feature, field } = given;
  const here = useTaken(given);
  const [state, dispatch] = useReducer(padReducer, null, () => padFor(job, feature, here.taken));
  const gauges = inOrder(job.gauges, feature);
  const inHand = gauges.find((g) => g.tag === state.gauge);
  const off = job.signed !== null;
  const enter = useEnter(given, here, state, dispatch, inHand?.kind === 'feeler set');
  const pull = usePull(job.number);
  const pullHere = () => {
    dispatch({ type: 'set', change: { arrived: '' } });
    pull.mutate(
      { feature: feature.key, station: state.station, gauge: state.gauge },
      {
        onSuccess: (sent) => {
          dispatch({ type: 'set', change: { arrived: sent.note } });
          enter(sent.typed, 'receiver');
        },
      },
    );
  };
  useEffect(() => {
    if (!off) field.current?.focus();
  }, [state.station, state.goes, feature.key, off, field]);
  usePadKeys(given, here.counted.at(-1)?.id ?? null, state, dispatch, { gauges, off, pullHere });
  /** Back to the station of a number that was not taken, to type it anew: only by the technician's own act. */
  const typeAnew = (entry: Entry) => {
    here.forget(entry.id);
    dispatch({ type: 'anew', station: entry.station });
    field.current?.clear();
    field.current?.focus();
  };
  return { ...here, state, dispatch, gauges, inHand, off, enter, pull, pullHere, typeAnew };
}

interface Hand {
  gauges: Gauge[];
  off: boolean;
  pullHere: () => void;
}

/** The keys of the pad; `last` is the newest reading that counts. */
function usePadKeys(
  { feature, phase }: Given,
  last: string | null,
  state: PadState,
  dispatch: (action: PadAction) => void,
  { gauges, off, pullHere }: Hand,
) {
  const stationAt = (by: number) => {
    const index = feature.stations.findIndex((s) => s.key === state.station);
    dispatch({ type: 'set', change: { station: turned(feature.stations, index, by)?.key ?? state.station } });
  };
  useKeys(
    off
      ? []
      : [
          { key: 'ArrowLeft', label: '', run: () => stationAt(-1) },
          { key: 'ArrowRight', show: '← →', label: 'station', run: () => stationAt(1) },
          { key: 'p', label: 'pull', run: pullHere },
          {
            key: 'g',
            label: 'other gauge',
            run: () => {
              const index = gauges.findIndex((g) => g.tag === state.gauge);
              dispatch({ type: 'set', change: { gauge: turned(gauges, index, 1)?.tag ?? '' } });
            },
          },
          // In Build the same letter marks a step done.
          ...(feature.damages.length && phase === 'found'
            ? [{ key: 'd', label: 'damage', run: () => dispatch({ type: 'set', change: { open: 'look' } }) }]
            : []),
          ...(last
            ? [
                {
                  key: 'x',
                  label: 'strike out',
                  run: () => dispatch({ type: 'set', change: { striking: last } }),
                },
              ]
            : []),
        ],
  );
}

export type PadInHand = ReturnType<typeof usePad>;

/** What an Enter means: a leaf that goes, a reading, or nothing more of this part. */
function useEnter(
  { feature, partAt, field, onNext }: Given,
  { waiting, failed, taken, every, save, forget }: ReturnType<typeof useTaken>,
  state: PadState,
  dispatch: (action: PadAction) => void,
  leaves: boolean,
) {
  const lastEntered = useRef(-Infinity);
  const how = useHow();
  const goOn = () => {
    // All stations are taken and on the sheet: Enter goes on. Any other Enter too many is no reading.
    const stray = performance.now() - lastEntered.current < STRAY_ENTER_MS;
    if (every && !waiting.length && !failed.length && state.goes === null && !stray) onNext?.();
  };
  return (typed: string, as: Entry['taken'] = 'typed') => {
    const text = typed.trim();
    if (!text) {
      goOn();
      return;
    }
    lastEntered.current = performance.now();
    if (as === 'typed') field.current?.clear();
    if (leaves && state.goes === null && as === 'typed') {
      dispatch({ type: 'goes', leaf: text });
      return;
    }
    const { station, gauge, goes, warm, material } = state;
    const pair = goes === null ? { typed: text, stops: '' } : { typed: goes, stops: text };
    const part = warm ? { part: partAt, material } : { part: '', material: '' };
    const entry = newEntry({ ...pair, ...part, station, gauge, taken: as, reason: '', how: how() });
    // A wrong number typed anew at its station is put right; what was not taken for other reasons stays until it is said.
    failed.filter((f) => f.entry.station === station && isWrong(f.error)).forEach((f) => forget(f.entry.id));
    const held = new Set([...taken, ...failed.map((f) => f.entry.station)]);
    const next = taken.has(station) ? undefined : nextFree(feature.stations, station, held);
    dispatch({ type: 'entered', from: station, next, typed: as === 'typed' });
    void save(entry);
  };
}
