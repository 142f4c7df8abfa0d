/** A label as it stands within a sentence: GH and CO2 stay as they are. */
export function midSentence(label: string): string {
  return /^.[A-Z0-9]/.test(label) ? label : label.charAt(0).toLowerCase() + label.slice(1);
}
