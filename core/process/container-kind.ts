/** The containers that a step after the pour can be limited to. */
export const CONTAINER_KINDS = ["vessels", "molds"] as const;
export type ContainerKind = (typeof CONTAINER_KINDS)[number];
/** Returns whether a step that is limited to some containers is for one of this kind. */
export const isForContainer = (only: ContainerKind | undefined, container: "vessel" | "mold"): boolean =>
  only === undefined || (only === "molds") === (container === "mold");
