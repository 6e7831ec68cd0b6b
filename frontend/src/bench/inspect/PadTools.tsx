import type { Feature, Job } from '../../api/client';
import { TextField } from '../../app/TextField';
import { Photos } from '../job/Photos';
import { LookPanel } from './LookPanel';
import { PasteSet } from './PasteSet';
import { ReadingList, Strike } from './ReadingList';
import type { PadInHand } from './usePad';

interface Props {
  pad: PadInHand;
  job: Job;
  feature: Feature;
  phase: 'found' | 'left';
}

/** What can be done beside typing a number, and the readings so far. */
export function PadTools({ pad, job, feature, phase }: Props) {
  const { state, dispatch, readings, pull } = pad;
  if (pad.off) return <ReadingList readings={readings} stations={feature.stations} onStrike={null} />;
  return (
    <div className="tools">
      <button type="button" className="tool" disabled={pull.isPending} onClick={pad.pullHere}>
        {pull.isPending ? 'Asking …' : 'Pull'}
      </button>
      {feature.stations.length > 1 && (
        <button
          type="button"
          className="tool"
          onClick={() => dispatch({ type: 'set', change: { open: 'paste' } })}
        >
          Paste
        </button>
      )}
      <button
        type="button"
        className="tool"
        aria-pressed={state.warm}
        onClick={() => dispatch({ type: 'set', change: { warm: !state.warm } })}
      >
        Warm part
      </button>
      {feature.damages.length > 0 && (
        <button
          type="button"
          className="tool"
          onClick={() => dispatch({ type: 'set', change: { open: 'look' } })}
        >
          {lookWords(feature, phase)}
        </button>
      )}
      <Photos job={job} photos={feature.photos} of={{ feature: feature.key }} what={feature.name} />
      <ReadingList
        readings={readings}
        stations={feature.stations}
        onStrike={(reading) => dispatch({ type: 'set', change: { striking: reading } })}
      />
    </div>
  );
}

function lookWords(feature: Feature, phase: 'found' | 'left'): string {
  const look = phase === 'left' ? feature.look_left : feature.look;
  return look ? `Seen: ${look.words}` : 'Damage?';
}

interface WarmProps extends Omit<Props, 'phase'> {
  degrees: string;
  partAt: string;
  onPartAt: (text: string) => void;
}

/** How warm the part is, and what it is made of where the sheet does not say. */
export function WarmPart({ pad, job, feature, degrees, partAt, onPartAt }: WarmProps) {
  return (
    <div className="try-check">
      <TextField short label={`Part is at (${degrees})`} value={partAt} onChange={onPartAt} />
      {feature.expansion ? (
        <p className="quiet">Its material grows {feature.expansion}.</p>
      ) : (
        <label className="field">
          It is made of
          <select
            value={pad.state.material}
            onChange={(event) => pad.dispatch({ type: 'set', change: { material: event.target.value } })}
          >
            <option value="">choose</option>
            {job.materials.map((m) => (
              <option key={m}>{m}</option>
            ))}
          </select>
        </label>
      )}
    </div>
  );
}

/** What is open over the pad: striking a reading out, what was seen, a pasted set. */
export function PadPanels({ pad, job, feature, phase }: Props) {
  const { state, dispatch } = pad;
  const hide = () => dispatch({ type: 'set', change: { open: null } });
  return (
    <>
      {state.striking && (
        <Strike
          job={job}
          reading={state.striking}
          onHide={() => dispatch({ type: 'set', change: { striking: null } })}
        />
      )}
      {state.open === 'look' && <LookPanel job={job} feature={feature} phase={phase} onHide={hide} />}
      {state.open === 'paste' && (
        <PasteSet job={job} feature={feature} phase={phase} gauge={state.gauge} onHide={hide} />
      )}
    </>
  );
}
