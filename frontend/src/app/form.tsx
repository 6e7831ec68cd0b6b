import { Choice, type Choices } from './Choice';
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
  options: Choices;
  disabled?: boolean;
}

/** One of several. */
export function FormSelect({ form, name, options, ...field }: SelectProps) {
  const [chosen, put] = useDraftField(form, name);
  return <Choice {...field} value={chosen} choices={options} onChange={put} />;
}
