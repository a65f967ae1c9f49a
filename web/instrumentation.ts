/** Runs once when the server starts: the log, the figures, what is done by itself, and the end of all streams when the server stops. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs" || process.env.NODE_ENV !== "production") return;
  const [{ takeConsole }, { measureRequests }, { closeStreams: endStreams }, { startCleaning }] = await Promise.all([
    import("./server/operation/logger"),
    import("./server/operation/metrics"),
    import("./server/http/change-stream"),
    import("./server/operation/cleaning"),
  ]);
  takeConsole();
  // A build starts nothing.
  if (!process.env.DATABASE_URL) return;
  measureRequests();
  startCleaning();
  process.once("SIGTERM", endStreams);
}
