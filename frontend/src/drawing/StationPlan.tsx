import { useId } from 'react';
import type { Feature, Reading } from '../api/client';
import { Hatch } from './GapBar';

interface Props {
  feature: Feature;
  readings: Reading[];
  station: string;
  onStation: (key: string) => void;
}

/** The stations where they are on the part: for each plane an end view with its directions as keys to press. */
export function StationPlan({ feature, readings, station, onStation }: Props) {
  const planes = [...new Set(feature.stations.map((s) => s.plane))];
  if (feature.stations.length < 2) return null;
  return (
    <div className="station-plan">
      {planes.map((plane) => (
        <div className="plane" key={plane}>
          <PartEnd kind={feature.kind} plane={plane} />
          {feature.stations
            .filter((s) => s.plane === plane)
            .map((s, i) => (
              <button
                type="button"
                key={s.key}
                className={`station at-${i === 0 ? 'top' : 'right'}`}
                aria-pressed={s.key === station}
                aria-label={`${s.label}: ${lastOf(readings, s.key)?.text ?? 'not measured'}`}
                onClick={() => onStation(s.key)}
              >
                <small>{s.direction}</small>
                <b>{shown(readings, s.key)}</b>
              </button>
            ))}
        </div>
      ))}
    </div>
  );
}

function counted(readings: Reading[], key: string): Reading[] {
  return readings.filter((r) => r.station === key && !r.struck_reason);
}

function lastOf(readings: Reading[], key: string): Reading | undefined {
  return counted(readings, key).at(-1);
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
  const bore = kind === 'internal';
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
