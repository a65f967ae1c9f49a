import { defectNow, defectOf, howBad } from "../../defects/defects";
import { batchEvent, closedAlready, productOf } from "./event-type";

/** A flaw seen: which, where, how bad, on how many of which product. */
export const flaw = batchEvent({
  kind: "flaw",
  version: 4,
  payload: ({ flaw }) => flaw,
  upcast: ({ vesselId, severity, defect, ...old }) => ({
    ...old,
    defect: defectNow(defect),
    ...("product" in old ? {} : { product: vesselId }),
    severity: severity === "plain" ? "clear" : severity === "bad" ? "severe" : severity,
  }),
  validate: (state, one, plan) => {
    if (Object.keys(state.pours).length === 0) return { field: "kind", message: "Nothing is poured yet, so there is nothing to inspect." };
    const product = productOf(plan, one.product);
    if (!product) return { field: "product", message: "This batch has no such product." };
    if (one.jars > product.count) return { field: "jars", message: `This batch has ${product.count} of ${product.name}, so ${one.jars} cannot be flawed.` };
    return closedAlready(state);
  },
  apply: (state, { id, happenedAt, payload: one }) => {
    state.flaws.push({ eventId: id, at: happenedAt, flaw: one });
  },
  describe: (one, plan) => {
    const known = defectOf(one.defect);
    const product = productOf(plan, one.product);
    return {
      what: `${howBad(one)} ${known?.name ?? one.defect} at the ${one.place}, ${product?.name ?? "vessel"}`,
      figure: `${one.jars} of ${product?.count ?? "?"}`,
      tone: known?.classes.includes("S") ? "safety" : "ink",
    };
  },
  columns: (one, plan) => ({
    what: `${one.defect}, ${one.place}, ${howBad(one)}, ${one.jars} × ${productOf(plan, one.product)?.name ?? ""}`,
  }),
});
