/** With a capital first letter, as a sentence begins. */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
