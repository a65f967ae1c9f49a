/** Where a device keeps whether keys of a single letter are heard. */
export const LETTERS = "hearth.letters";
export const lettersAreOff = (): boolean => {
  try {
    return localStorage.getItem(LETTERS) === "off";
  } catch {
    return false;
  }
};
