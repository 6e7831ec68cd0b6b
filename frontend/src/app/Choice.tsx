export type Choices = readonly (readonly [value: string, words: string])[];

interface ChoiceProps {
  label: string;
  value: string;
  choices: Choices;
  disabled?: boolean;
  onChange: (value: string) => void;
}

/** One of a few, by its words. */
export function Choice({ label, value, choices, disabled, onChange }: ChoiceProps) {
  return (
    <label className="field">
      {label}
      <select value={value} disabled={disabled} onChange={(event) => onChange(event.target.value)}>
        {choices.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}
