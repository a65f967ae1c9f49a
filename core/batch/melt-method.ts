/** How wax is melted, and what it is called in a record. */
export const MELT_METHODS = {
  "double boiler": "in a double boiler",
  plate: "on a hot plate",
  melter: "in a wax melter",
  "slow cooker": "in a slow cooker",
  microwave: "in a microwave",
  "hot water": "over hot water, off the heat",
} as const;
export type MeltMethod = keyof typeof MELT_METHODS;
export const MELT_METHOD_NAMES = Object.keys(MELT_METHODS) as [MeltMethod, ...MeltMethod[]];
