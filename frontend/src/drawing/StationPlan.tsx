import { useId } from 'react';
import type { Feature, Reading } from '../api/client';
import { Hatch } from './GapBar';

interface Props {
  feature: Feature;
  readings: Reading[];
  station: string;
  onStation: (key: string) => void;
}

type Stations = Feature['stations'];

/** More stations than this are laid out as a table: planes across, directions down. */
const MOST_ROUND = 8;

/** Planes a table has room for on a narrow screen. */
const MOST_ACROSS = 4;

/** The stations where they are on the part: for each plane an end view with its directions as keys to press. */
export function StationPlan({ feature, readings, station, onStation }: Props) {
  const planes = [...new Set(feature.stations.map((s) => s.plane))];
  if (feature.stations.length < 2) return null;
  const button = (s: Stations[number], place?: { left: string; top: string }) => (
    <button
      type="button"
      key={s.key}
      className="station"
      style={place}
      aria-pressed={s.key === station}
      aria-label={`${s.label}: ${counted(readings, s.key).at(-1)?.text ?? 'not measured'}`}
      onClick={() => onStation(s.key)}
    >
      <small>{s.direction || s.plane}</small>
      <b>{shown(readings, s.key)}</b>
    </button>
  );
  const round = planes.map((plane) => places(feature.stations.filter((s) => s.plane === plane)));
  if (feature.stations.length > MOST_ROUND || round.some((p) => !p)) {
    return abreast(planes).map((some) => (
      <div
        key={some[0]}
        className="station-table"
        style={{ gridTemplateColumns: `repeat(${some.length}, auto)` }}
      >
        {planes.length > 1 && some.map((plane) => <span key={plane}>{plane}</span>)}
        {rows(feature.stations, some).map((s) => button(s))}
      </div>
    ));
  }
  return (
    <div className="station-plan">
      {planes.map((plane, i) => (
        <div className={`plane${(round[i]?.length ?? 0) < 3 ? ' half' : ''}`} key={plane}>
          <PartEnd kind={feature.kind} plane={plane} />
          {feature.stations.filter((s) => s.plane === plane).map((s, j) => button(s, round[i]?.[j]))}
        </div>
      ))}
    </div>
  );
}

/** Planes as they stand side by side: as many as there is room for, in tables of about the same width. */
function abreast(planes: string[]): string[][] {
  const across = Math.ceil(planes.length / Math.ceil(planes.length / MOST_ACROSS));
  return planes.flatMap((_, i) => (i % across ? [] : [planes.slice(i, i + across)]));
}

/** Row by row, so that a table reads across the planes. */
function rows(stations: Stations, planes: string[]): Stations {
  const directions = [...new Set(stations.map((s) => s.direction))];
  return directions.flatMap((d) =>
    planes.flatMap((p) => stations.filter((s) => s.plane === p && s.direction === d)),
  );
}

/** Where the directions of one plane lie round its end view; nothing where they are no directions. */
function places(stations: Stations): { left: string; top: string }[] | null {
  const hours = stations.map((s) => Number(/^\d+/.exec(s.direction)?.[0]));
  const pair = stations.length === 2 && hours.every(Number.isNaN) ? [12, 3] : hours;
  if (pair.some((h) => Number.isNaN(h)) || stations.length > 4) return null;
  return pair.map((hour) => {
    const turn = (hour / 12) * 2 * Math.PI;
    return {
      left: `${(50 + 33 * Math.sin(turn)).toFixed(1)}%`,
      top: `${(50 - 35 * Math.cos(turn)).toFixed(1)}%`,
    };
  });
}

function counted(readings: Reading[], key: string): Reading[] {
  return readings.filter((r) => r.station === key && !r.struck_reason);
}

function shown(readings: Reading[], key: string): string {
  const mine = counted(readings, key);
  const last = mine.at(-1);
  if (!last) return '—';
  return mine.length > 1 ? `${last.text} ×${mine.length}` : last.text;
}

/** A bore is a hatched ring, a shaft a plain disc; the measuring directions are drawn across. */
function PartEnd({ kind, plane }: { kind: string; plane: string }) {
  const hatch = useId();
  const bore = kind === 'internal' || kind === 'depth';
  return (
    <svg viewBox="0 0 150 150" aria-hidden="true">
      <Hatch id={hatch} />
      <circle
        cx="75"
        cy="75"
        r="56"
        className="metal"
        fill={bore ? `url(#${hatch})` : undefined}
        data-plain={!bore}
      />
      <circle cx="75" cy="75" r="36" className={bore ? 'hole' : 'face'} />
      <path d="M75 12 V138 M12 75 H138" className="axis" />
      <text x="75" y="80" textAnchor="middle" className="note plane-name">
        {plane}
      </text>
    </svg>
  );
}
