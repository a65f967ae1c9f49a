import { environmentSetting } from "@/server/operation/environment";

/** Loopback by any of its names, with a port or without. */
const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])(:\d{1,5})?$/i;
const READS = ["GET", "HEAD", "OPTIONS"];

/** Of another site, of none that can be read, or of this one. */
function originOf(text: string, host: string): "own" | "other" | "odd" {
  if (text === "null") return "other";
  try {
    return new URL(text).host.toLowerCase() === host.toLowerCase() ? "own" : "other";
  } catch {
    return "odd";
  }
}

/** Returns the names that this program was told it is reached by, beside loopback; none if it listens to this machine alone. */
const isOurName = (host: string): boolean => {
  const names = (environmentSetting("HEARTH_ALLOWED_HOSTS") ?? "").split(",").filter(Boolean);
  return names.includes(host.toLowerCase()) || names.includes(host.toLowerCase().replace(/:\d{1,5}$/, ""));
};

/**
 * Returns why a request is not let in; null if it is. A page elsewhere must not reach the records by a name that resolves to this
 * machine, nor write to them from another origin.
 */
export function checkHostAndOrigin(method: string, host: string, origin: string | null): { status: 400 | 403; message: string } | null {
  if (!LOOPBACK.test(host) && !isOurName(host))
    return {
      status: 403,
      message: environmentSetting("HEARTH_ALLOWED_HOSTS")
        ? "Unknown host name. Use the address that Hearth Jar printed when it was started."
        : "Hearth Jar can be reached only at 127.0.0.1 on this machine. ./hearth start --listen ADDRESS opens it to others, with a sign-in.",
    };
  if (origin === null || READS.includes(method)) return null;
  const from = originOf(origin, host);
  if (from === "odd") return { status: 400, message: "The Origin header of this request is invalid." };
  return from === "other" ? { status: 403, message: "Requests from other sites are refused." } : null;
}

/** Returns what a page may load and run: its own scripts by a nonce, nothing from elsewhere, and no frame around it. */
export const contentSecurityPolicy = (nonce: string) =>
  [
    "default-src 'self'",
    // Scripts added later come from files of this server, or not at all. The solver is WebAssembly, in a worker.
    `script-src 'self' 'nonce-${nonce}' 'wasm-unsafe-eval'`,
    // Styles set on elements are part of the drawings; none of them comes from what is typed.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");

/** Over TLS a browser is told to stay with it (RFC 6797). */
const STRICT: Record<string, string> = environmentSetting("HEARTH_PUBLIC_URL")?.startsWith("https:") ? { "strict-transport-security": "max-age=31536000" } : {};

export const SECURITY_HEADERS: Record<string, string> = {
  ...STRICT,
  "x-content-type-options": "nosniff",
  "x-frame-options": "DENY",
  "referrer-policy": "same-origin",
  "cross-origin-opener-policy": "same-origin",
  "cross-origin-resource-policy": "same-origin",
  "permissions-policy": "camera=(), microphone=(), geolocation=(), payment=(), usb=()",
};
