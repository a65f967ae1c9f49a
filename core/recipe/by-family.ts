/** Returns what a text like "soy: pale rose; paraffin: brick red" says of a family of wax; null if it says nothing of it. */
export function valueForFamily(text: string, familyName: string): string | null {
  for (const part of text.split(/[;\n]/)) {
    const [name, value] = part.split(":");
    if (value && name?.trim().toLowerCase() === familyName) return value.trim();
  }
  return null;
}
