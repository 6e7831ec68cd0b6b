import { useWatch, type UseFormReturn } from 'react-hook-form';
import type { Procedure, ProcedureStep } from '../api/client';

/** A procedure as it is written in the editor. */
export interface Written {
  steps: ProcedureStep[];
  conventions: Procedure['conventions'];
}

interface Props {
  form: UseFormReturn<Written>;
  index: number;
  lead: boolean;
  /** The places of the steps before and after it in its stage; none at the ends. */
  earlier: number | undefined;
  later: number | undefined;
  onMove: (to: number) => void;
  onRemove: () => void;
}

/** A step of the procedure: a lead rewords and moves it; a step of the shop's own may be a hold point, and be taken out. */
export function StepRow({ form, index, lead, ...moves }: Props) {
  const step = useWatch({ control: form.control, name: `steps.${index}` });
  const own = step.declared === '';
  return (
    <li>
      <div className="procedure-words">
        {lead ? (
          <textarea
            aria-label={own ? 'Step of our own' : `Step: ${step.declared}`}
            rows={2}
            maxLength={400}
            {...form.register(`steps.${index}.text`)}
          />
        ) : (
          <p>{step.text}</p>
        )}
        <small>
          {step.caution && 'Caution. '}
          {step.hold && 'Hold point. '}
          {own && 'Our own. '}
          {!own && step.text !== step.declared && `Reworded; it was: ${step.declared} `}
          {step.when && `Only: ${step.when}. `}
          {step.why}
        </small>
      </div>
      {lead && (
        <div className="procedure-moves">
          {own && (
            <label className="tick">
              <input type="checkbox" {...form.register(`steps.${index}.hold`)} /> hold point
            </label>
          )}
          <Moves {...moves} text={step.text} own={own} />
        </div>
      )}
    </li>
  );
}

type MovesProps = Omit<Props, 'form' | 'index' | 'lead'> & { text: string; own: boolean };

function Moves({ earlier, later, onMove, onRemove, text, own }: MovesProps) {
  return (
    <>
      <button
        type="button"
        className="tool"
        disabled={earlier === undefined}
        aria-label={`Earlier: ${text}`}
        onClick={() => onMove(earlier ?? 0)}
      >
        ↑
      </button>
      <button
        type="button"
        className="tool"
        disabled={later === undefined}
        aria-label={`Later: ${text}`}
        onClick={() => onMove(later ?? 0)}
      >
        ↓
      </button>
      {own && (
        <button type="button" className="tool" onClick={onRemove}>
          Take out
        </button>
      )}
    </>
  );
}
