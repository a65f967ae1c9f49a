/** The labels, without what follows a “·”, at which a word of the glossary stands explained. What it says is read when somebody asks. */
export const LABELS: Readonly<Record<string, readonly string[]>> = {
  "add at": ["Add at", "Supplier: add at"],
  "maximum temperature": ["Maximum temperature"],
  cure: ["Minimum cure", "Recommended cure"],
  density: ["Density", "Solid density", "Liquid density"],
  "flash point": ["Flash point"],
  headspace: ["Headspace"],
  "heat to": ["Heat to", "Supplier: heat to"],
  "fragrance load": ["Load", "Maximum fragrance load", "Usual fragrance load"],
  lot: ["Supplier's lot code"],
  "pour at": ["Pour at", "Supplier: pour at"],
  process: ["Process", "Process name"],
  set: ["Set for"],
  extra: ["Extra"],
  "net weight": ["Net weight"],
  "fill weight": ["Fill weight"],
  protocol: ["Protocol"],
  wick: ["Wick", "Wicks in one", "Wicks", "Size"],
};

const ofLabel = new Map(Object.entries(LABELS).flatMap(([word, labels]) => labels.map((label) => [label.toLowerCase(), word] as const)));

/** Returns the name of the word that stands explained at a label; nothing where the label speaks for itself. */
export const wordAt = (label: string): string | null => ofLabel.get((label.split(" · ")[0] as string).trim().toLowerCase()) ?? null;
