/** The methods that any part of the program answers. */
export const METHODS = ["GET", "HEAD", "POST", "OPTIONS", "PUT", "PATCH", "DELETE"];

/** Returns whether the signs of an address that are written as numbers can be read. */
function isReadable(url: string): boolean {
  try {
    return !decodeURIComponent(url.split("?")[0] ?? "").includes("\u0000");
  } catch {
    return false;
  }
}

/** Returns why a request is answered before anything looks at it: its method, or an address that is no path of this server. Null if it is not. */
export function oddRequest(method: string, url: string): { status: 400 | 405; message: string } | null {
  if (!METHODS.includes(method)) return { status: 405, message: "This method is not answered here." };
  // An address with a host of its own, or "*", is meant for a proxy or for no page at all.
  if (!url.startsWith("/") || url.startsWith("//") || !isReadable(url)) return { status: 400, message: "This address cannot be read." };
  return null;
}
