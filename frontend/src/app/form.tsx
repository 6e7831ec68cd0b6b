import { TextField } from './TextField';
import { useDraftField, type DraftForm } from './useDraftForm';

interface FieldProps {
  form: DraftForm;
  name: string;
  label: string;
  maxLength?: number;
  short?: boolean;
  keyboard?: 'decimal' | 'numeric' | 'text';
  autoFocus?: boolean;
}

/** A line to type on. */
export function FormText({ form, name, ...field }: FieldProps) {
  const [text, put] = useDraftField(form, name);
  return <TextField {...field} value={text} onChange={put} />;
}

interface SelectProps {
  form: DraftForm;
  name: string;
  label: string;
  /** What can be chosen: the value, and its words. */
  options: readonly (readonly [string, string])[];
  disabled?: boolean;
}

/** One of several. */
export function FormSelect({ form, name, label, options, disabled }: SelectProps) {
  const [chosen, put] = useDraftField(form, name);
  return (
    <label className="field">
      {label}
      <select value={chosen} disabled={disabled} onChange={(event) => put(event.target.value)}>
        {options.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}
