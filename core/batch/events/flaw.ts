import { defectNow, defectOf, howBad } from "../../defects/defects";
import { batchEvent, closedAlready, productOf } from "./event-type";

/** A flaw was found: which one, where, how severe, and on how many pieces of which product. */
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
  validate: (state, payload, plan) => {
    if (Object.keys(state.pours).length === 0) return { field: "kind", message: "Nothing is poured yet, so there is nothing to inspect." };
    const product = productOf(plan, payload.product);
    if (!product) return { field: "product", message: "This batch has no such product." };
    if (payload.jars > product.count)
      return { field: "jars", message: `This batch has ${product.count} of ${product.name}, so ${payload.jars} cannot be flawed.` };
    return closedAlready(state);
  },
  apply: (state, { id, happenedAt, payload }) => {
    state.flaws.push({ eventId: id, at: happenedAt, flaw: payload });
  },
  describe: (payload, plan) => {
    const known = defectOf(payload.defect);
    const product = productOf(plan, payload.product);
    return {
      what: `${howBad(payload)} ${known?.name ?? payload.defect} at the ${payload.place}, ${product?.name ?? "vessel"}`,
      figure: `${payload.jars} of ${product?.count ?? "?"}`,
      tone: known?.classes.includes("S") ? "safety" : "ink",
    };
  },
  columns: (payload, plan) => ({
    what: `${payload.defect}, ${payload.place}, ${howBad(payload)}, ${payload.jars} × ${productOf(plan, payload.product)?.name ?? ""}`,
  }),
});
