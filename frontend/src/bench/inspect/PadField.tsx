import { useImperativeHandle, useRef, type Ref } from 'react';
import { useDraft, useUnit } from '../../app/unit';

export interface PadFieldHandle {
  text: () => string;
  clear: () => void;
  focus: () => void;
}

interface Props {
  ref: Ref<PadFieldHandle>;
  label: string;
  off: boolean;
}

/** The number being typed. It holds its own text, so that a digit renders nothing but the field. */
export function PadField({ ref, label, off }: Props) {
  const { unit } = useUnit();
  const [draft, setDraft] = useDraft();
  const input = useRef<HTMLInputElement>(null);
  useImperativeHandle(
    ref,
    () => ({ text: () => draft, clear: () => setDraft(''), focus: () => input.current?.focus() }),
    [draft, setDraft],
  );
  return (
    <div className="big-field">
      <input
        ref={input}
        type="text"
        data-pad="1"
        inputMode="decimal"
        autoComplete="off"
        maxLength={40}
        aria-label={label}
        value={draft}
        disabled={off}
        onChange={(event) => setDraft(event.target.value)}
      />
      <span className="unit">{unit}</span>
    </div>
  );
}
