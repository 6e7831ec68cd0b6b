/** With a capital first letter, as a sentence begins. */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** A number with its thousands apart, which a line never breaks between. */
export function grouped(value: number): string {
  return value.toLocaleString('en').replaceAll(',', '\u00a0');
}
