interface Props {
  label: string;
  /** As 2026-01-31; empty while no day is chosen. */
  value: string;
  onChange: (day: string) => void;
}

/** A labelled day. */
export function DayField({ label, value, onChange }: Props) {
  return (
    <label className="field">
      {label}
      <input type="date" value={value} onChange={(event) => onChange(event.target.value)} />
    </label>
  );
}
