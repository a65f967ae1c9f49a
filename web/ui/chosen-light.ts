export type Light = "day" | "evening";

/** Returns the light that was chosen by hand, as the cookie says it; null if it follows the device. */
export const chosenLight = (cookie: string | undefined): Light | null => (cookie === "day" || cookie === "evening" ? cookie : null);
