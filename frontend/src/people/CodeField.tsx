interface Props {
  label: string;
  value: string;
  onChange: (text: string) => void;
}

/** A labelled line for a code of a second factor: six digits, or one that is on paper. */
export function CodeField({ label, value, onChange }: Props) {
  return (
    <label className="field short">
      {label}
      <input
        type="text"
        inputMode="text"
        autoComplete="one-time-code"
        maxLength={20}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}
