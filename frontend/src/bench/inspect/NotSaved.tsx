import type { Feature } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { isWrong } from './padState';
import type { PadInHand } from './usePad';

/** Readings that were not taken, each with what was asked or refused, at its own station until it is said. */
export function NotSaved({ pad, feature }: { pad: PadInHand; feature: Feature }) {
  const { save, forget, typeAnew } = pad;
  return pad.failed.map(({ entry, error }) => (
    <div key={entry.id}>
      <p className="not-saved">
        <b>
          {feature.stations.find((s) => s.key === entry.station)?.label}: {entry.typed}
          {entry.stops && ` goes, ${entry.stops} does not`}
        </b>{' '}
        is not saved.{' '}
        {isWrong(error) ? (
          <button type="button" className="tool" onClick={() => typeAnew(entry)}>
            Type it anew
          </button>
        ) : (
          <button type="button" className="tool" onClick={() => void save(entry)}>
            Save it again
          </button>
        )}{' '}
        <button type="button" className="tool" onClick={() => forget(entry.id)}>
          Give it up
        </button>
      </p>
      <ProblemNote
        error={error}
        onSuggestion={(typed) => void save({ ...entry, typed })}
        onConfirm={(reason) => {
          void save({ ...entry, reason: reason ?? '', how: { ...entry.how, meant: true } });
        }}
      />
    </div>
  ));
}
