import { TextField } from '../../app/TextField';
import { useUnit } from '../../app/unit';

interface Props {
  label: string;
  value: string;
  onChange: (text: string) => void;
}

/** By how much something was turned, along the outside. */
export function Arc({ label, value, onChange }: Props) {
  const { unit } = useUnit();
  return <TextField short label={`${label} (${unit})`} value={value} onChange={onChange} />;
}
