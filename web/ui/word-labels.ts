/** The labels, without what follows a “·”, at which a word of the glossary stands explained. What it says is read when somebody asks. */
export const LABELS: Readonly<Record<string, readonly string[]>> = {
  "add at": ["Add at", "Sheet: add at"],
  ceiling: ["Ceiling"],
  cure: ["Minimum cure", "Recommended cure"],
  density: ["Density", "Density, set", "Density, liquid"],
  "flash point": ["Flash point"],
  headspace: ["Headspace"],
  "heat to": ["Heat to", "Sheet: heat to"],
  load: ["Load", "Largest load", "Usual load"],
  lot: ["Supplier's lot code"],
  "pour at": ["Pour at", "Sheet: pour at"],
  process: ["Process", "Process name"],
  set: ["Set for"],
  spare: ["Spare"],
  "stated fill": ["Stated fill"],
  "working fill": ["Working fill"],
  protocol: ["Protocol"],
  wick: ["Wick", "Wicks in one", "Wicks", "Size"],
};

const ofLabel = new Map(Object.entries(LABELS).flatMap(([word, labels]) => labels.map((label) => [label.toLowerCase(), word] as const)));

/** Returns the name of the word that stands explained at a label; nothing where the label speaks for itself. */
export const wordAt = (label: string): string | null => ofLabel.get((label.split(" · ")[0] as string).trim().toLowerCase()) ?? null;
