interface Props {
  label: string;
  value: string;
  onChange: (text: string) => void;
  maxLength?: number;
  /** As wide as a number. */
  short?: boolean;
  /** Which keyboard a tablet shows. */
  keyboard?: 'decimal' | 'numeric' | 'text';
  autoFocus?: boolean;
  onEnter?: () => void;
}

/** A labelled line to type on. */
export function TextField({
  label,
  value,
  onChange,
  maxLength = 40,
  short,
  keyboard,
  autoFocus,
  onEnter,
}: Props) {
  return (
    <label className={short ? 'field short' : 'field'}>
      {label}
      <input
        type="text"
        inputMode={keyboard ?? (short ? 'decimal' : 'text')}
        autoComplete="off"
        value={value}
        maxLength={maxLength}
        autoFocus={autoFocus}
        onChange={(event) => onChange(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && onEnter) {
            event.preventDefault();
            onEnter();
          }
        }}
      />
    </label>
  );
}
