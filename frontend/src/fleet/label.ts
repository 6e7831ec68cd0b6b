const CODE = '[23456789ABCDEFGHJKMNPQRSTVWXYZ]{6}';

/** The code of a label in what was scanned or typed: its address, or the six letters alone; nothing where it is neither. */
export function codeIn(text: string): string {
  const said = text.trim().toUpperCase();
  const found = new RegExp(`/P/(${CODE})/?$`).exec(said) ?? new RegExp(`^LABEL (${CODE})$`).exec(said);
  return found?.[1] ?? '';
}
