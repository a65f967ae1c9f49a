import type { SupplierSheet } from "@hearth/core";
import { demoId } from "../workshop";
import { crewAt, type YearsScenario } from "./scenario";

/** Classes of hazard as sheets of oils name them; invented ingredients with invented shares get them in turn. */
const CLASSES = [["Skin Sens. 1B"], ["Aquatic Chronic 2"], ["Eye Irrit. 2", "Skin Irrit. 2"], ["Aquatic Chronic 3"], ["Skin Sens. 1", "Aquatic Chronic 2"]];
const REVISIONS = 3;
/** The demo's own sheets are of fragrances up to this one. */
const OWN_FRAGRANCES = 4;

/** Returns the supplier sheets of the fragrances of these years: three revisions of each, the newest of this year or the last. */
export function yearsSheets({ materials, days }: YearsScenario, now: Date) {
  const before = (daysBefore: number) => new Date(now.getTime() - daysBefore * 86_400_000).toISOString();
  return materials.fragrances.slice(OWN_FRAGRANCES).flatMap(({ id, name }, index) =>
    Array.from({ length: REVISIONS }, (_, revision) => {
      const daysBefore = Math.round(((REVISIONS - 1 - revision) / REVISIONS) * days * 0.9) + 40 + index * 11;
      const on = before(daysBefore).slice(0, 10);
      const ingredients: SupplierSheet["ingredients"] = [0, 1, 2].map((n) => ({
        name: `${name} ${["accord", "base", "note"][n]}`,
        percent: 4 + ((index * 7 + n * 11 + revision) % 24),
        classes: CLASSES[(index + n) % CLASSES.length] ?? [],
        unread: [],
        limits: [],
      }));
      return {
        id: demoId(0x2e, 100 + index * REVISIONS + revision),
        materialId: id,
        on,
        sheet: { revision: String(revision + 1), on, ingredients },
        at: before(daysBefore - 3),
        personId: demoId(1, crewAt(daysBefore / days, index)[0]),
      };
    }),
  );
}
