import { Link } from 'react-router';

interface Props {
  value: string;
  onChange: (pin: string) => void;
}

/** The PIN of who signs: who it is, said again where it counts. */
export function PinField({ value, onChange }: Props) {
  return (
    <label className="field pin">
      Your PIN
      <input
        type="password"
        inputMode="numeric"
        autoComplete="off"
        maxLength={8}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
      <small>
        <Link to="/me">Set or change it</Link>
      </small>
    </label>
  );
}
