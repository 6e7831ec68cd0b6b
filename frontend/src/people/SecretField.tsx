interface Props {
  label: string;
  value: string;
  onChange: (text: string) => void;
  /** A PIN: digits, and few. */
  digits?: boolean | undefined;
  /** What the browser may offer. */
  offer?: 'current-password' | 'new-password' | 'off';
}

/** A labelled line for what nobody else shall read. */
export function SecretField({ label, value, onChange, digits, offer = 'new-password' }: Props) {
  return (
    <label className="field">
      {label}
      <input
        type="password"
        inputMode={digits ? 'numeric' : 'text'}
        autoComplete={offer}
        maxLength={digits ? 8 : 200}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}
